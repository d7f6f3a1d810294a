// SPDX-License-Identifier: GPL-3.0-or-later
//! Retract units of the shelf, the builder's own beside ours, held against the aircraft: what fits, carries,
//! is quick enough, and what the next one costs.
#include <QDialog>
#include <QFile>
#include <QFileDialog>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>
#include <cmath>

#include "app/document/when_seen.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/findings.h"
#include "core/assess/drive_state.h"
#include "core/io/shelves.h"
#include "core/io/stock.h"
#include "core/model/moves.h"

namespace kranich::app {
namespace {

class UnitDialog : public QDialog {
 public:
  UnitDialog(Document& document, const std::string& leg, QWidget* parent)
      : QDialog(parent), document_(document), leg_(leg), shelf_(shipped_stock().units) {
    setObjectName("unit-dialog");
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("Retract units for the %1")
                       .arg(text_of(document.design().leg_word(this->leg()), document.units())));
    resize(1000, 560);
    auto* all = new QVBoxLayout(this);
    need_ = new QLabel(this);
    need_->setObjectName("unit-need");
    need_->setWordWrap(true);
    all->addWidget(need_);
    table_ = new QTableWidget(this);
    table_->setObjectName("unit-shelf");
    table_->setAccessibleName(tr("Retract units, those that fit first"));
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(22);
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setToolTip(tr("Double-click to fit a unit; Ctrl+Z takes it out again"));
    all->addWidget(table_, 1);
    said_ = new QLabel(this);
    said_->setObjectName("unit-says");
    said_->setWordWrap(true);
    said_->setMinimumHeight(46);
    all->addWidget(said_);
    auto* own = new QPushButton(tr("Own shelf from CSV …"), this);
    own->setObjectName("unit-csv");
    own->setToolTip(
        tr("Columns: name, angle_deg; as far as known fore_m, back_m, half_width_m, above_m, below_m, pin_m, "
           "rated_mass_kg, rated_moment_N_m, time_s, mass_kg, price, drive, other_way, remark"));
    all->addWidget(own);
    connect(own, &QPushButton::clicked, this, [this] {
      const QString path =
          QFileDialog::getOpenFileName(this, tr("Shelf of retract units"), {}, tr("CSV (*.csv)"));
      if (!path.isEmpty()) take_shelf(path);
    });
    connect(table_, &QTableWidget::cellDoubleClicked, this, [this](int row, int) { fit(row); });
    connect(table_, &QTableWidget::cellActivated, this, [this](int row, int) { fit(row); });
    connect(table_, &QTableWidget::currentCellChanged, this, [this](int row, int, int, int) { tell(row); });
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed);
    refresh();
  }

 private:
  const Leg& leg() const { return document_.design().gear.leg(leg_); }

  void take_shelf(const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) {
      said_->setText(tr("%1 cannot be read: %2").arg(path, file.errorString()).toHtmlEscaped());
      return;
    }
    auto read = read_unit_shelf(file.readAll().toStdString());
    if (!read.faults.empty()) {
      const auto& f = read.faults.front();
      said_->setText(QStringLiteral("%1: %2").arg(text_of(f.where), text_of(f.what)));
      return;
    }
    // The builder's own first; ours stay.
    shelf_.insert(shelf_.begin(), read.units.begin(), read.units.end());
    refresh();
  }

  void refresh() {
    const auto need = unit_need(document_.assessment(), leg());
    const auto or_dash = [&](double v, Kind kind) {
      return std::isfinite(v) ? document_.say(v, kind) : tr("unknown");
    };
    need_->setText(
        tr("Aircraft at its heaviest <b>%1</b>; greatest moment at the pin <b>%2</b> (limit, over the "
           "leg's load cases). The mount stays as it is.")
            .arg(or_dash(need.aircraft_mass, Kind::mass), or_dash(need.moment, Kind::moment)));
    ranked_ = swing::rank_units(shelf_, document_.design(), leg(), need);
    const QStringList heads{tr("Unit"),
                            tr("Speaks against it"),
                            tr("Turn, °"),
                            tr("Drive"),
                            tr("Above + below, %1").arg(document_.unit(Kind::length)),
                            tr("Long × wide, %1").arg(document_.unit(Kind::length)),
                            tr("Pin, %1").arg(document_.unit(Kind::length)),
                            tr("For up to, %1").arg(document_.unit(Kind::mass)),
                            tr("Pin carries, %1").arg(document_.unit(Kind::moment)),
                            tr("Time, s"),
                            tr("Mass, %1").arg(document_.unit(Kind::mass)),
                            tr("Price"),
                            tr("Swing has left, %1").arg(document_.unit(Kind::length))};
    table_->setColumnCount(static_cast<int>(heads.size()));
    table_->setHorizontalHeaderLabels(heads);
    table_->setRowCount(static_cast<int>(ranked_.size()));
    for (int r = 0; r < table_->rowCount(); ++r) {
      const auto& c = ranked_[static_cast<size_t>(r)];
      const auto& u = *c.unit;
      const auto figure = [&](const Given& g, Kind kind) {
        return g.known() ? document_.say_number(g, kind) : QStringLiteral("–");
      };
      const auto sum = [](const Given& a, const Given& b) {
        return a.known() && b.known() ? Given(a.si + b.si) : Given();
      };
      const bool fitted = u.name == leg().retraction.unit.shelf_name;
      const QStringList cells{
          text_of(u.name) + (fitted ? tr(" – fitted") : QString()),
          !c.against.empty()   ? text_of(c.against.front(), document_.units())
          : !c.unknown.empty() ? tr("not known: %1").arg(text_of(c.unknown.front(), document_.units()))
                               : tr("nothing"),
          u.angle.known() ? app::figure(degrees(u.angle), 0) : QStringLiteral("–"),
          text_of(u.drive) + (u.other_way ? tr(", other way") : QString()),
          figure(sum(u.above, u.below), Kind::length),
          QStringLiteral("%1 × %2").arg(figure(sum(u.fore, u.back), Kind::length),
                                        figure(sum(u.half_width, u.half_width), Kind::length)),
          figure(u.pin, Kind::length),
          figure(u.rated_mass, Kind::mass),
          figure(u.rated_moment, Kind::moment),
          figure(u.time, Kind::time),
          figure(u.mass, Kind::mass),
          u.price.known() ? app::figure(u.price.si, 2) : QStringLiteral("–"),
          std::isfinite(c.clearance) ? document_.say_number(c.clearance, Kind::length) : QStringLiteral("–")};
      for (int k = 0; k < cells.size(); ++k) {
        auto* item = new QTableWidgetItem(cells[k]);
        if (k != 0 && k != 1 && k != 3) {
          item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
          item->setFont(figure_font(9));
        }
        if (fitted) item->setForeground(Theme::now().accent);
        if (k == 1 && !c.against.empty()) item->setForeground(Theme::now().fails);
        table_->setItem(r, k, item);
      }
    }
    table_->resizeColumnsToContents();
    table_->setColumnWidth(1, std::min(table_->columnWidth(1), 260));
    table_->horizontalHeader()->setStretchLastSection(true);
    tell(std::max(0, table_->currentRow()));
  }

  //! All that speaks against the chosen one, and what is not known.
  void tell(int row) {
    if (row < 0 || row >= static_cast<int>(ranked_.size())) return;
    const auto& c = ranked_[static_cast<size_t>(row)];
    QStringList lines;
    for (const auto& t : c.against) lines << sentence_of(t, document_.units());
    QStringList unknown;
    for (const auto& t : c.unknown) unknown << text_of(t, document_.units());
    if (!unknown.isEmpty()) lines << tr("Not known: %1").arg(unknown.join(QStringLiteral("; ")));
    if (lines.isEmpty()) lines << tr("Nothing speaks against it.");
    if (!c.unit->remark.empty()) lines << text_of(c.unit->remark);
    said_->setText(
        QStringLiteral("<b>%1</b>: %2").arg(text_of(c.unit->name), lines.join(QStringLiteral(". "))));
  }

  void fit(int row) {
    if (row < 0 || row >= static_cast<int>(ranked_.size())) return;
    const auto unit = *ranked_[static_cast<size_t>(row)].unit;
    document_.edit(tr("Fit %1").arg(QString::fromStdString(unit.name)), [&](Design& d) {
      for (const size_t r : line_of(d, row_of(d.gear, leg_)))
        if (d.gear.legs[r].retraction.fitted) swing::fit_unit(d.gear.legs[r], unit);
    });
  }

  Document& document_;
  std::string leg_;
  std::vector<swing::ShelfUnit> shelf_;
  std::vector<swing::UnitCandidate> ranked_;
  QLabel* need_;
  QTableWidget* table_;
  QLabel* said_;
};

}  // namespace

QWidget* make_unit_dialog(Document& document, const std::string& leg, QWidget* parent) {
  return new UnitDialog(document, leg, parent);
}

}  // namespace kranich::app
