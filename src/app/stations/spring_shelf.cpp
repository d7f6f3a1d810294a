// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/spring_shelf.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "app/document/when_seen.h"
#include "app/theme.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/findings.h"
#include "core/assess/standing.h"
#include "core/io/stock.h"

namespace kranich::app {
namespace {

QString thing(SpringKind kind) {
  switch (kind) {
    case SpringKind::coil:
      return QObject::tr("Coil spring");
    case SpringKind::gas_strut:
      return QObject::tr("Gas strut");
    case SpringKind::cord:
      return QObject::tr("Cord");
    case SpringKind::pucks:
      return QObject::tr("Rubber pucks");
    default:
      return QObject::tr("Stock");
  }
}

}  // namespace

ShelfPanel::ShelfPanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), note_(new QLabel(this)), table_(new QTableWidget(this)) {
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(10, 4, 10, 6);
  all->setSpacing(3);
  note_->setFont(text_font(8));
  auto* head = new QHBoxLayout;
  head->addWidget(note_, 1);
  auto* own = new QPushButton(tr("Of your own …"), this);
  own->setObjectName("own-springs");
  own->setToolTip(tr("Coils at hand that no shelf lists; bows that were flown, to calibrate by"));
  connect(own, &QPushButton::clicked, this, [this] { make_own_springs_dialog(document_, window())->show(); });
  head->addWidget(own);
  all->addLayout(head);
  table_->setObjectName("shelf");
  table_->setAccessibleName(tr("Shelf, best first"));
  table_->setColumnCount(8);
  table_->verticalHeader()->hide();
  table_->verticalHeader()->setDefaultSectionSize(22);
  table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->setSelectionMode(QAbstractItemView::ExtendedSelection);
  table_->setToolTip(
      tr("Double-click fits one, Ctrl+Z takes it out again; up to three chosen ones are drawn beside yours"));
  all->addWidget(table_);
  connect(table_, &QTableWidget::cellDoubleClicked, this, [this](int row, int) { fit(row); });
  connect(table_, &QTableWidget::cellActivated, this, [this](int row, int) { fit(row); });
  connect(table_, &QTableWidget::itemSelectionChanged, this, &ShelfPanel::compared_changed);
  refresh_when_seen(
      this, &document_, [this] { refresh(); }, &Document::changed, &Document::view_changed);
}

void ShelfPanel::show_leg(const std::string& leg) {
  leg_ = leg;
  refresh();
}

std::vector<spring::Offer> ShelfPanel::compared() const {
  std::vector<int> rows;
  for (const auto& range : table_->selectionModel()->selectedRows()) rows.push_back(range.row());
  std::sort(rows.begin(), rows.end());
  std::vector<spring::Offer> chosen;
  for (const int r : rows)
    if (r < static_cast<int>(ranked_.size()) && chosen.size() < 3)
      chosen.push_back(offers_[ranked_[static_cast<size_t>(r)].index]);
  return chosen;
}

void ShelfPanel::refresh() {
  const Design& d = document_.design();
  const Leg& leg = d.gear.leg(leg_);
  const auto* loading = document_.loading();
  const QSignalBlocker quiet(table_);
  offers_.clear();
  ranked_.clear();
  table_->setRowCount(0);
  has_shelf_ = leg.spring.kind != SpringKind::linear && leg.spring.kind != SpringKind::gas &&
               leg.spring.kind != SpringKind::leaf;
  if (document_.before_drag() || !has_shelf_) return;
  if (!loading || !loading->rest || !leg.travel.known()) {
    note_->setText(tr("<b>Shelf</b> &nbsp; needs the aircraft at rest and the leg's travel"));
    return;
  }
  const spring::Need need{loading->rest->wheels[wheel_of(d, leg_)].load};
  offers_ = spring::offers_for(leg, stock_of(d).springs, d.materials, need);
  ranked_ = spring::rank_offers(offers_, d.materials, need);
  note_->setText(ranked_.empty()
                     ? tr("<b>Shelf</b> &nbsp; nothing on it for this leg")
                     : tr("<b>Shelf</b> &nbsp; for %1 of travel under %2, best first; double-click fits one, "
                          "up to three chosen are drawn above. To buy: <b>%3</b>")
                           .arg(document_.say(leg.travel, Kind::length),
                                document_.say(need.static_load, Kind::force),
                                text_of(offers_[ranked_.front().index].buy, document_.units())));
  table_->setHorizontalHeaderLabels({thing(leg.spring.kind), tr("Size"),
                                     tr("At the wheel, %1").arg(document_.unit(Kind::stiffness)),
                                     tr("Preload, %1").arg(document_.unit(Kind::force)), tr("Sag"),
                                     tr("Left at the stop"), tr("Objection"), tr("To buy")});
  table_->setRowCount(static_cast<int>(ranked_.size()));
  for (int r = 0; r < table_->rowCount(); ++r) {
    const auto& c = ranked_[static_cast<size_t>(r)];
    const auto& o = offers_[c.index];
    const QStringList cells{
        text_of(o.name),
        text_of(o.size, document_.units()),
        document_.say_number(c.rate, Kind::stiffness),
        document_.say_number(c.preload, Kind::force),
        document_.say(c.sag, Kind::share),
        std::isfinite(c.margin) ? document_.say(c.margin, Kind::share) : QStringLiteral("–"),
        c.objection.empty() ? tr("none") : text_of(c.objection, document_.units()),
        text_of(o.buy, document_.units())};
    const Spring& s = o.leg.spring;
    const std::string& fitted = leg.spring.kind == SpringKind::coil        ? leg.spring.coil.shelf_name
                                : leg.spring.kind == SpringKind::gas_strut ? leg.spring.gas_strut.shelf_name
                                : leg.spring.kind == SpringKind::cord      ? leg.spring.cord.shelf_name
                                : leg.spring.kind == SpringKind::pucks     ? leg.spring.pucks.shelf_name
                                                                           : leg.spring.bent.shelf_name;
    const bool here = o.name == fitted || (s.kind == SpringKind::bending && s.bent == leg.spring.bent);
    for (int k = 0; k < cells.size(); ++k) {
      auto* cell = new QTableWidgetItem(cells[k]);
      if (k > 1 && k < 6) cell->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
      if (!c.objection.empty()) cell->setForeground(Theme::now().grey);
      if (here) {
        QFont f = cell->font();
        f.setBold(true);
        cell->setFont(f);
      }
      table_->setItem(r, k, cell);
    }
  }
  table_->resizeColumnsToContents();
  table_->horizontalHeader()->setStretchLastSection(true);
}

void ShelfPanel::fit(int row) {
  if (row < 0 || row >= static_cast<int>(ranked_.size())) return;
  const spring::Offer chosen = offers_[ranked_[static_cast<size_t>(row)].index];
  document_.edit(tr("Fit %1").arg(text_of(chosen.name)),
                 [&](Design& d) { d.gear.leg(leg_).spring = chosen.leg.spring; });
}

}  // namespace kranich::app
