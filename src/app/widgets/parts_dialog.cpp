// SPDX-License-Identifier: GPL-3.0-or-later
//! Parts weighed against each other: what could be taken for one place, and what taking it does.
#include <QDialog>
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
#include "app/widgets/list_table.h"
#include "core/assess/loading_state.h"
#include "core/model/moves.h"
#include "core/weigh/parts.h"

namespace kranich::app {
namespace {

class PartsDialog : public QDialog {
 public:
  PartsDialog(Document& document, QWidget* parent) : QDialog(parent), document_(document) {
    setObjectName("parts-dialog");
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("Parts weighed against each other"));
    resize(900, 600);
    auto* all = new QVBoxLayout(this);
    auto* note = new QLabel(
        tr("<b>What could be taken</b>: name the place as the ledger names its item, how many, what one "
           "weighs and costs. What is taken goes into the ledger, and everything is worked out anew."),
        this);
    note->setWordWrap(true);
    all->addWidget(note);
    auto* list = new ListTable(
        document_, "/parts",
        {{"for_what", tr("For")},
         {"name", tr("Part")},
         {"count", tr("How many")},
         {"mass_kg", tr("Mass of one")},
         {"price", tr("Price of one")},
         {"x_m", tr("At station")},
         {"remark", tr("Remark")}},
        [](Design& d) {
          auto& parts = d.parts;
          const std::string place = parts.empty() ? std::string() : parts.back().for_what;
          parts.emplace_back();
          parts.back().for_what = place;
          parts.back().name = unused_name(parts, "part");
        },
        this);
    all->addWidget(list, 1);
    table_ = new QTableWidget(this);
    table_->setObjectName("part-totals");
    table_->setAccessibleName(tr("Parts by mass times number"));
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(24);
    table_->setColumnCount(7);
    all->addWidget(table_, 1);
    auto* take = new QPushButton(tr("Take the chosen one into the ledger"), this);
    take->setObjectName("part-take");
    connect(take, &QPushButton::clicked, this, [this] { take_chosen(); });
    connect(table_, &QTableWidget::cellDoubleClicked, this, [this](int, int) { take_chosen(); });
    all->addWidget(take);
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed, &Document::view_changed);
    refresh();
  }

 private:
  void refresh() {
    const Design& d = document_.design();
    const auto* loading = document_.loading();
    const bool known = loading && loading->mass.known();
    const auto groups = weigh::part_groups(d, known ? loading->mass.down.mass : std::nan(""),
                                           known ? loading->mass.down.at.x() : std::nan(""));
    table_->setHorizontalHeaderLabels({tr("For"), tr("Part"),
                                       tr("All of them, %1").arg(document_.unit(Kind::mass)),
                                       tr("over the lightest"), tr("Price"),
                                       tr("CG goes, %1").arg(document_.unit(Kind::length)), tr("Taken")});
    rows_.clear();
    table_->setRowCount(static_cast<int>(d.parts.size()));
    for (const auto& g : groups)
      for (size_t i = 0; i < g.offers.size(); ++i) {
        const auto& o = g.offers[i];
        const int r = static_cast<int>(rows_.size());
        rows_.push_back(o.row);
        const auto figure = [&](double v, Kind kind) {
          return std::isfinite(v) ? document_.say_number(v, kind) : QStringLiteral("–");
        };
        const QString over = std::isfinite(o.mass) ? document_.say(o.mass - g.offers[0].mass, Kind::mass)
                                                   : QStringLiteral("–");
        const QString goes =
            std::isfinite(o.cg_shift)
                ? QStringLiteral("%1 %2").arg(document_.say_number(std::abs(o.cg_shift), Kind::length),
                                              o.cg_shift >= 0 ? tr("aft") : tr("forward"))
                : QStringLiteral("–");
        const QStringList cells{text_of(g.for_what),
                                text_of(d.parts[o.row].name),
                                figure(o.mass, Kind::mass),
                                over,
                                std::isfinite(o.price) ? app::figure(o.price, 2) : QStringLiteral("–"),
                                goes,
                                i == g.taken ? tr("taken") : QString()};
        for (int c = 0; c < cells.size(); ++c) {
          auto* cell = new QTableWidgetItem(cells[c]);
          if (c >= 2 && c <= 5) cell->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
          if (i == g.taken) {
            QFont f = cell->font();
            f.setBold(true);
            cell->setFont(f);
          }
          table_->setItem(r, c, cell);
        }
      }
    table_->resizeColumnsToContents();
    table_->horizontalHeader()->setStretchLastSection(true);
  }
  void take_chosen() {
    const int r = table_->currentRow();
    if (r < 0 || r >= static_cast<int>(rows_.size())) return;
    const size_t row = rows_[static_cast<size_t>(r)];
    document_.edit(tr("Take %1").arg(text_of(document_.design().parts[row].name)),
                   [&](Design& d) { weigh::take_part(d, row); });
  }
  Document& document_;
  QTableWidget* table_;
  std::vector<size_t> rows_;
};

}  // namespace

QWidget* make_own_springs_dialog(Document& document, QWidget* parent) {
  auto* dialog = new QDialog(parent);
  dialog->setObjectName("own-springs-dialog");
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->setWindowTitle(QObject::tr("Springs of your own"));
  dialog->resize(900, 520);
  auto* all = new QVBoxLayout(dialog);
  const auto heading = [&](const QString& text) {
    auto* label = new QLabel(text, dialog);
    label->setWordWrap(true);
    all->addWidget(label);
  };
  heading(QObject::tr(
      "<b>Coils at hand</b>: those that are whole stand on the shelf before the others, and among the "
      "cures"));
  all->addWidget(new ListTable(
                     document, "/spring_bench/coils",
                     {{"name", QObject::tr("Coil")},
                      {"coil/wire_diameter_m", QObject::tr("Wire")},
                      {"coil/mean_diameter_m", QObject::tr("Mean diameter")},
                      {"coil/active_turns", QObject::tr("Active turns")},
                      {"coil/total_turns", QObject::tr("Total turns")},
                      {"coil/free_length_m", QObject::tr("Free length")},
                      {"coil/ends", QObject::tr("Ends")},
                      {"coil/wire", QObject::tr("Wire of")},
                      {"mass_kg", QObject::tr("Mass")},
                      {"price", QObject::tr("Price")}},
                     [](Design& d) {
                       d.spring_bench.coils.emplace_back();
                       d.spring_bench.coils.back().name = unused_name(d.spring_bench.coils, "coil");
                     },
                     dialog),
                 1);
  heading(QObject::tr(
      "<b>Bows that were flown</b>: the rule of thumb is calibrated by those that held, and by those that "
      "did not"));
  all->addWidget(new ListTable(
                     document, "/spring_bench/proven",
                     {{"name", QObject::tr("Bow")},
                      {"mass_kg", QObject::tr("Aircraft")},
                      {"plies", QObject::tr("Plies")},
                      {"root_width_m", QObject::tr("Width at the root")},
                      {"held", QObject::tr("Held")}},
                     [](Design& d) {
                       d.spring_bench.proven.emplace_back();
                       d.spring_bench.proven.back().name = unused_name(d.spring_bench.proven, "bow");
                     },
                     dialog),
                 1);
  return dialog;
}

QWidget* make_parts_dialog(Document& document, QWidget* parent) { return new PartsDialog(document, parent); }

}  // namespace kranich::app
