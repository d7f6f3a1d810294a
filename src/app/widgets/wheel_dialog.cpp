// SPDX-License-Identifier: GPL-3.0-or-later
#include <QDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QTableWidget>
#include <QVBoxLayout>
#include <cmath>
#include <limits>

#include "app/drawing/diagram.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/findings.h"
#include "core/assess/place_rules.h"
#include "core/force/leg_law.h"
#include "core/io/stock.h"
#include "core/model/describe.h"
#include "core/model/moves.h"

namespace kranich::app {
namespace {

//! Load over squash of a tyre, at its pressure and at some beside it.
class TyreDiagram : public QWidget {
 public:
  TyreDiagram(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setMinimumHeight(190);
    setAccessibleName(QObject::tr("Load over squash of the tyre"));
  }
  void show_wheel(const Wheel& wheel, double load) {
    wheel_ = wheel;
    load_ = load;
    update();
  }

 protected:
  void paintEvent(QPaintEvent*) override {
    QPainter p(this);
    p.fillRect(rect(), Theme::now().card);
    const auto law = force::tyre_law(wheel_);
    const auto* tyre = std::get_if<force::TyreLaw>(&law);
    if (!tyre || !std::isfinite(tyre->limit)) return;
    const Frame frame(QRectF(rect()), QRectF(0, 0, width(), height()));
    Sheet sheet(p, frame);
    const auto& length = display_unit(Kind::length, document_.units());
    const auto& force_unit = display_unit(Kind::force, document_.units());
    Diagram g;
    g.title =
        wheel_.tyre == Tyre::pneumatic && wheel_.pressure.known()
            ? QObject::tr("%1: load over squash; dashed: a tyre 30 % softer").arg(text_of(wheel_.shelf_name))
            : QObject::tr("%1: load over squash").arg(text_of(wheel_.shelf_name));
    g.x_title = QObject::tr("squash, %1").arg(text_of(length.symbol));
    g.y_title = text_of(force_unit.symbol);
    g.x_factor = 1 / length.to_si;
    g.y_factor = 1 / force_unit.to_si;
    for (int i = 0; i <= 60; ++i) {
      const double t = tyre->limit * 0.93 * i / 60;
      g.curve.push_back({t, tyre->force(t)});
      if (wheel_.tyre == Tyre::pneumatic && wheel_.pressure.known()) {
        force::TyreLaw softer = *tyre;  // as if let down: the rate goes about as the pressure
        softer.rate *= 0.7;
        g.second.push_back({t, softer.force(t)});
      }
    }
    const double squash = tyre->squash(load_);
    g.marks.push_back(
        {{squash, load_}, QObject::tr("static %1").arg(document_.say(load_, Kind::force)), Ink::accent});
    g.marks.push_back({{0.9 * tyre->limit, 0}, QObject::tr("a tenth left"), Ink::tight, true});
    g.fit();
    g.draw(sheet, QRectF(rect()).adjusted(4, 4, -4, -4));
  }

 private:
  Document& document_;
  Wheel wheel_;
  double load_ = 0;
};

class WheelDialog : public QDialog {
 public:
  WheelDialog(Document& document, const std::string& leg, QWidget* parent)
      : QDialog(parent), document_(document), leg_(leg) {
    setObjectName("wheel-dialog");
    setAttribute(Qt::WA_DeleteOnClose);
    const QString word = text_of(document.design().wheel_word(this->leg()), document.units());
    setWindowTitle(QObject::tr("%1 from the shelf").arg(capitalised(word)));
    resize(860, 600);
    shelf_ = shipped_stock().wheels;
    auto* all = new QVBoxLayout(this);
    need_ = new QLabel(this);
    need_->setWordWrap(true);
    all->addWidget(need_);
    auto* line = new QHBoxLayout;
    auto* full = new QLineEdit(this);
    full->setObjectName("scale-from");
    full->setAccessibleName(QObject::tr("Full-size measure"));
    full->setPlaceholderText(QObject::tr("full-size measure, e.g. 650 mm or 25 1/2 in"));
    auto* at_scale = new QLabel(QObject::tr("at scale: –"), this);
    at_scale->setObjectName("scale-to");
    line->addWidget(new QLabel(QObject::tr("Full size to scale"), this));
    line->addWidget(full, 1);
    line->addWidget(at_scale, 1);
    all->addLayout(line);
    connect(full, &QLineEdit::textEdited, this, [this, at_scale](const QString& text) {
      const auto& scale = document_.design().purpose.scale_denominator;
      const auto parsed = parse_quantity(as_typed(text), Kind::length, document_.units());
      if (const auto* error = std::get_if<ParseError>(&parsed))
        at_scale->setText(QString::fromStdString(error->message));
      else if (!scale.known())
        at_scale->setText(QObject::tr("the project has no scale (Aircraft and project)"));
      else
        at_scale->setText(QObject::tr("at 1:%1: %2")
                              .arg(scale.si)
                              .arg(document_.say(std::get<ParsedQuantity>(parsed).si / scale, Kind::length)));
    });
    table_ = new QTableWidget(this);
    table_->setObjectName("wheel-shelf");
    table_->setAccessibleName(QObject::tr("Wheels, best first"));
    table_->setColumnCount(8);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(22);
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setToolTip(QObject::tr("Double-click to fit a wheel; Ctrl+Z takes it off again"));
    all->addWidget(table_, 1);
    mass_ = new QLabel(this);
    mass_->setObjectName("wheel-mass");
    mass_->setWordWrap(true);
    all->addWidget(mass_);
    diagram_ = new TyreDiagram(document, this);
    all->addWidget(diagram_);
    connect(table_, &QTableWidget::cellDoubleClicked, this, [this](int row, int) { fit(row); });
    connect(table_, &QTableWidget::cellActivated, this, [this](int row, int) { fit(row); });
    connect(table_, &QTableWidget::currentCellChanged, this,
            [this](int row, int, int, int) { show_tyre(row); });
    connect(&document_, &Document::changed, this, &WheelDialog::refresh);
    refresh();
  }

 private:
  const Leg& leg() const { return document_.design().gear.leg(leg_); }

  void refresh() {
    const auto need = wheel_need(document_.design(), document_.assessment(), leg());
    load_ = need.load;
    ranked_.clear();
    if (load_ <= 0 || !std::isfinite(need.usual_diameter)) {
      need_->setText(load_ <= 0
                         ? QObject::tr("The aircraft has to stand on its wheels first: the load decides.")
                         : QObject::tr("The main wheels' diameter has to be known first."));
      table_->setRowCount(0);
      return;
    }
    ranked_ = place::rank_wheels(shelf_, need);
    need_->setText(QObject::tr("Carries <b>%1</b> at rest. Usual here: <b>%2</b>%3.")
                       .arg(document_.say(load_, Kind::force),
                            document_.say(need.usual_diameter, Kind::length),
                            std::isfinite(need.scale_diameter)
                                ? QObject::tr("; to scale <b>%1</b>, which decides the order")
                                      .arg(document_.say(need.scale_diameter, Kind::length))
                                : QString()));
    table_->setHorizontalHeaderLabels({QObject::tr("Wheel"), QObject::tr("Tyre"),
                                       QObject::tr("Diameter, %1").arg(document_.unit(Kind::length)),
                                       QObject::tr("Width, %1").arg(document_.unit(Kind::length)),
                                       QObject::tr("Mass, %1").arg(document_.unit(Kind::mass)),
                                       QObject::tr("Squash, %1").arg(document_.unit(Kind::length)),
                                       QObject::tr("Ground pressure, %1").arg(document_.unit(Kind::pressure)),
                                       QObject::tr("Speaks against it")});
    table_->setRowCount(static_cast<int>(ranked_.size()));
    for (int r = 0; r < table_->rowCount(); ++r) {
      const auto& c = ranked_[static_cast<size_t>(r)];
      const auto& w = shelf_[c.index];
      const auto cell = [&](int column, const QString& text, bool number) {
        auto* item = new QTableWidgetItem(text);
        if (number) {
          item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
          item->setFont(figure_font(9));
        }
        if (w.name == leg().wheel.shelf_name) item->setForeground(Theme::now().accent);
        table_->setItem(r, column, item);
      };
      cell(0,
           QString::fromStdString(w.name) +
               (w.name == leg().wheel.shelf_name ? QObject::tr(" – fitted") : QString()),
           false);
      cell(1, text_of(tyre_names[static_cast<size_t>(w.wheel.tyre)]), false);
      cell(2, document_.say_number(w.wheel.diameter, Kind::length), true);
      cell(3, document_.say_number(w.wheel.width, Kind::length), true);
      cell(4, document_.say_number(w.mass, Kind::mass), true);
      cell(5, document_.say_number(c.squash, Kind::length), true);
      cell(6, document_.say_number(c.ground_pressure, Kind::pressure), true);
      cell(7,
           c.objection.empty() ? QString::fromStdString(w.remark) : text_of(c.objection, document_.units()),
           false);
    }
    table_->resizeColumnsToContents();
    table_->horizontalHeader()->setStretchLastSection(true);
    show_tyre(std::max(0, table_->currentRow()));
  }

  void show_tyre(int row) {
    if (row < 0 || row >= static_cast<int>(ranked_.size())) return;
    diagram_->show_wheel(shelf_[ranked_[static_cast<size_t>(row)].index].wheel, load_);
  }

  void fit(int row) {
    if (row < 0 || row >= static_cast<int>(ranked_.size())) return;
    const auto wheel = shelf_[ranked_[static_cast<size_t>(row)].index];
    // The wheel taken off, where it came from this shelf: the ledger changes by the difference.
    double off = std::numeric_limits<double>::quiet_NaN();
    for (const auto& w : shelf_)
      if (w.name == leg().wheel.shelf_name) off = w.mass;
    place::WheelMass mass;
    document_.edit(QObject::tr("Fit %1").arg(QString::fromStdString(wheel.name)), [&](Design& d) {
      mass = place::exchange_wheels(d, line_of(d, row_of(d.gear, leg_)), wheel, off);
    });
    mass_->setText(
        mass.unsaid
            ? QObject::tr("The ledger is as it was: what hangs on this leg may hold a wheel of unknown "
                          "mass. Set it in Weigh; the new one weighs %1.")
                  .arg(document_.say(wheel.mass, Kind::mass))
            : QObject::tr("In the ledger: %1%2")
                  .arg(mass.change >= 0 ? QStringLiteral("+") : QString(),
                       document_.say(mass.change, Kind::mass)));
  }

  Document& document_;
  std::string leg_;
  QLabel* need_;
  QLabel* mass_;
  QTableWidget* table_;
  TyreDiagram* diagram_;
  double load_ = 0;
  std::vector<place::ShelfWheel> shelf_;
  std::vector<place::WheelCandidate> ranked_;
};

}  // namespace

QWidget* make_wheel_dialog(Document& document, const std::string& leg, QWidget* parent) {
  return new WheelDialog(document, leg, parent);
}

}  // namespace kranich::app
