// SPDX-License-Identifier: GPL-3.0-or-later
//! Drives side by side: what moves a leg and up to six others that could, each put into the leg and judged;
//! one is taken, the rest keep the reason why not.
#include <QComboBox>
#include <QDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>
#include <cmath>

#include "app/document/when_seen.h"
#include "app/stations/page.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/findings.h"
#include "app/widgets/list_table.h"
#include "core/assess/drive_offers.h"
#include "core/io/stock.h"
#include "core/model/describe_words.h"
#include "core/model/moves.h"

namespace kranich::app {
namespace {

class DriveDialog : public QDialog {
 public:
  DriveDialog(Document& document, const std::string& leg, QWidget* parent)
      : QDialog(parent), document_(document), leg_(leg) {
    setObjectName("drive-dialog");
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("Drives for the %1, side by side")
                       .arg(text_of(document.design().leg_word(this->leg()), document.units())));
    resize(1040, 680);
    auto* all = new QVBoxLayout(this);
    table_ = new QTableWidget(this);
    table_->setObjectName("drive-table");
    table_->setAccessibleName(tr("Drives side by side, one a column"));
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setSelectionBehavior(QAbstractItemView::SelectColumns);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->verticalHeader()->setSectionResizeMode(QHeaderView::Fixed);
    table_->verticalHeader()->setDefaultSectionSize(24);
    table_->setMinimumHeight(17 * 24 + 36);
    all->addWidget(table_, 3);
    said_ = new QLabel(this);
    said_->setObjectName("drive-says");
    said_->setWordWrap(true);
    said_->setMinimumHeight(42);
    all->addWidget(said_);
    auto* line = new QHBoxLayout;
    shelf_ = new QComboBox(this);
    shelf_->setObjectName("drive-shelf");
    shelf_->setAccessibleName(tr("Drive from the shelf"));
    for (const DriveOffer& o : shipped_stock().drives)
      shelf_->addItem(
          tr("%1, %2").arg(text_of(o.sold.name), text_of(drive_names[static_cast<size_t>(o.drive.kind)])));
    line->addWidget(shelf_, 1);
    const auto button = [&](const char* name, const QString& text, void (DriveDialog::*act)()) {
      auto* b = new QPushButton(text, this);
      b->setObjectName(QString::fromLatin1(name));
      line->addWidget(b);
      connect(b, &QPushButton::clicked, this, act);
      return b;
    };
    add_ = button("drive-add", tr("Compare it too"), &DriveDialog::add_from_shelf);
    copy_ = button("drive-copy", tr("Compare a copy of what is fitted"), &DriveDialog::add_copy);
    take_ = button("drive-take", tr("Fit the chosen one"), &DriveDialog::take);
    all->addLayout(line);
    auto* head = new QLabel(tr("<b>Their figures, and why not</b> – ends and arms are where this leg has "
                               "them; change them here for one "
                               "of them alone"),
                            this);
    head->setWordWrap(true);
    all->addWidget(head);
    entries_ = new ListTable(
        document_, leg_path(leg_) + "retraction/drive_offers",
        {{"sold/name", tr("Drive")},
         {"rejected", tr("Not taken because")},
         {"drive/kind", tr("Kind")},
         {"drive/force_N", tr("Force")},
         {"drive/stroke_m", tr("Stroke")},
         {"drive/speed_m_per_s", tr("Speed")},
         {"drive/on_airframe/x_m", tr("Airframe end x")},
         {"drive/on_airframe/y_m", "y"},
         {"drive/on_airframe/z_m", "z"},
         {"drive/on_leg/x_m", tr("Leg end x")},
         {"drive/on_leg/y_m", "y"},
         {"drive/on_leg/z_m", "z"},
         {"drive/bore_m", tr("Bore")},
         {"drive/rod_m", tr("Rod")},
         {"drive/supply_Pa", tr("Supply")},
         {"drive/back_Pa", tr("Return")},
         {"drive/flow_m3_per_s", tr("Flow")},
         {"drive/stall_torque_N_m", tr("Stall torque")},
         {"drive/no_load_speed_rad_per_s", tr("No-load speed")},
         {"drive/no_load_current_A", tr("No-load current")},
         {"drive/stall_current_A", tr("Stall current")},
         {"drive/gearbox", tr("Gearbox")},
         {"drive/pinion_radius_m", tr("Pinion")},
         {"drive/sector_radius_m", tr("Sector")},
         {"drive/efficiency", tr("Efficiency")},
         {"drive/rotor_inertia_kg_m2", tr("Rotor")},
         {"drive/servo_x_m", tr("Servo x")},
         {"drive/servo_y_m", tr("Servo y")},
         {"drive/unit_arm_m", tr("Unit's arm")},
         {"drive/unit_down_deg", tr("Arm, down")},
         {"drive/unit_stowed_deg", tr("Arm, stowed")},
         {"drive/over_centre_deg", tr("Over centre")},
         {"drive/full_throw_deg", tr("Full throw")},
         {"drive/throws", tr("Throws")},
         {"drive/rod_stiffness_N_per_m", tr("Rod's stiffness")},
         {"drive/rod_diameter_m", tr("Rod's diameter")},
         {"drive/rod_offset_m", tr("Rod's offset")},
         {"drive/ball_tilt_deg", tr("Ball's tilt")},
         {"sold/mass_kg", tr("Mass")},
         {"sold/price", tr("Price")},
         {"sold/pin_m", tr("Pins")},
         {"sold/hours", tr("Hours")},
         {"drive/air_acts", tr("Air moves it")},
         {"sold/length_m", tr("Long")},
         {"sold/width_m", tr("Wide")},
         {"sold/height_m", tr("High")},
         {"sold/current_A", tr("Current")},
         {"sold/locks", tr("Locks")},
         {"sold/powerless", tr("Without power")}},
        [this](Design& d) { add_to(d, offer_of(this->leg(), tr("copy").toStdString())); }, this);
    all->addWidget(entries_, 2);
    connect(table_, &QTableWidget::currentCellChanged, this,
            [this](int, int column, int, int) { tell(column); });
    connect(table_, &QTableWidget::cellDoubleClicked, this, [this](int, int) { take(); });
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed);
    refresh();
  }

 private:
  const Leg& leg() const { return document_.design().gear.leg(leg_); }
  //! The legs that move as one: all of a line.
  void add_to(Design& d, DriveOffer offer) {
    auto& offers = d.gear.leg(leg_).retraction.drive_offers;
    std::vector<DriveSold> taken{d.gear.leg(leg_).retraction.drive_sold};
    for (const DriveOffer& o : offers) taken.push_back(o.sold);
    offer.sold.name = unused_name(taken, offer.sold.name);
    offers.push_back(std::move(offer));
  }
  void add_from_shelf() {
    DriveOffer offer = shipped_stock().drives[static_cast<size_t>(shelf_->currentIndex())];
    // Its ends, arms and supply are this leg's, till it is told otherwise.
    const Drive& fitted = leg().retraction.drive;
    Drive machine = fitted;
    const Drive& sold = offer.drive;
    machine.kind = sold.kind;
    for (Given Drive::*of_it :
         {&Drive::force, &Drive::stroke, &Drive::speed, &Drive::bore, &Drive::rod, &Drive::stall_torque,
          &Drive::no_load_speed, &Drive::no_load_current, &Drive::stall_current, &Drive::gearbox,
          &Drive::efficiency, &Drive::rotor_inertia, &Drive::full_throw})
      machine.*of_it = sold.*of_it;
    offer.drive = machine;
    document_.edit(tr("Compare %1").arg(text_of(offer.sold.name)), [&](Design& d) { add_to(d, offer); });
  }
  void add_copy() {
    const QString name = leg().retraction.drive_sold.name.empty() ? tr("as fitted")
                                                                  : text_of(leg().retraction.drive_sold.name);
    document_.edit(tr("Compare a copy of the drive"),
                   [&](Design& d) { add_to(d, offer_of(leg(), name.toStdString())); });
  }
  void take() {
    const int column = table_->currentColumn();
    if (column < 0 || column >= static_cast<int>(rows_.size())) return;
    const int offer = rows_[static_cast<size_t>(column)].offer;
    if (offer < 0) return;
    document_.edit(tr("Fit %1").arg(text_of(rows_[static_cast<size_t>(column)].sold.name)),
                   [&](Design& d) { take_drive(d.gear.leg(leg_), static_cast<size_t>(offer)); });
  }

  void refresh() {
    const bool full = leg().retraction.drive_offers.size() >= 6;
    add_->setEnabled(!full);
    copy_->setEnabled(!full);
    rows_ = compare_drives(document_.design(), leg(), document_.assessment());
    struct Line {
      QString title;
      std::function<QString(const ComparedDrive&)> cell;
    };
    const auto figure = [this](double ComparedDrive::*of_it, Kind kind) {
      return [this, of_it, kind](const ComparedDrive& c) {
        return std::isfinite(c.*of_it) ? document_.say(c.*of_it, kind) : QStringLiteral("–");
      };
    };
    const auto sold = [this](Given DriveSold::*of_it, Kind kind) {
      return [this, of_it, kind](const ComparedDrive& c) {
        const Given& g = c.sold.*of_it;
        return g.known() ? document_.say(g, kind) : QStringLiteral("–");
      };
    };
    const std::vector<Line> lines{
        {tr("Kind"),
         [](const ComparedDrive& c) { return text_of(drive_names[static_cast<size_t>(c.kind)]); }},
        {tr("Judgement"),
         [](const ComparedDrive& c) {
           return !c.against.empty()   ? tr("%1 against it").arg(c.against.size())
                  : !c.unknown.empty() ? tr("%1 not known").arg(c.unknown.size())
                                       : tr("holds");
         }},
        {tr("Force or torque in hand"), figure(&ComparedDrive::in_hand, Kind::share)},
        {tr("Arm at its least"), figure(&ComparedDrive::arm, Kind::length)},
        {tr("Stroke left"), figure(&ComparedDrive::stroke, Kind::length)},
        {tr("Against bowing"), figure(&ComparedDrive::column, Kind::share)},
        {tr("Time of a travel"), figure(&ComparedDrive::time, Kind::time)},
        {tr("Current"), sold(&DriveSold::current, Kind::current)},
        {tr("Energy of a travel"), figure(&ComparedDrive::energy, Kind::energy)},
        {tr("Mass with fittings"), sold(&DriveSold::mass, Kind::mass)},
        {tr("Price, as entered"),
         [](const ComparedDrive& c) {
           return c.sold.price.known() ? app::figure(c.sold.price.si, 2) : QStringLiteral("–");
         }},
        {tr("Hours to fit it"),
         [](const ComparedDrive& c) {
           return c.sold.hours.known() ? app::figure(c.sold.hours.si, 1) : QStringLiteral("–");
         }},
        {tr("Pins"),
         [pin = sold(&DriveSold::pin, Kind::length)](const ComparedDrive& c) {
           return c.fits.empty() ? pin(c) : tr("%1, see below").arg(pin(c));
         }},
        {tr("Body to the structure"), figure(&ComparedDrive::room, Kind::length)},
        {tr("Locks by itself"),
         [](const ComparedDrive& c) { return text_of(locks_names[static_cast<size_t>(c.sold.locks)]); }},
        {tr("Without power it"),
         [](const ComparedDrive& c) {
           return text_of(powerless_names[static_cast<size_t>(c.sold.powerless)]);
         }},
        {tr("Not taken because"), [](const ComparedDrive& c) { return text_of(c.rejected); }}};
    const int chosen = table_->currentColumn();
    QStringList heads;
    for (const auto& c : rows_)
      heads << (c.offer < 0
                    ? (c.sold.name.empty() ? tr("fitted") : tr("%1 – fitted").arg(text_of(c.sold.name)))
                    : text_of(c.sold.name));
    QStringList titles;
    for (const Line& l : lines) titles << l.title;
    table_->setRowCount(static_cast<int>(lines.size()));
    table_->setColumnCount(static_cast<int>(rows_.size()));
    table_->setHorizontalHeaderLabels(heads);
    table_->setVerticalHeaderLabels(titles);
    for (int c = 0; c < table_->columnCount(); ++c)
      for (int r = 0; r < table_->rowCount(); ++r) {
        const auto& of = rows_[static_cast<size_t>(c)];
        auto* item = new QTableWidgetItem(lines[static_cast<size_t>(r)].cell(of));
        if (r == 1)
          item->setForeground(!of.against.empty()   ? Theme::now().fails
                              : !of.unknown.empty() ? Theme::now().grey
                                                    : Theme::now().holds);
        if (!of.rejected.empty() && r != 1) item->setForeground(Theme::now().grey);
        table_->setItem(r, c, item);
      }
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    tell(std::clamp(chosen, 0, table_->columnCount() - 1));
  }

  void tell(int column) {
    if (column < 0 || column >= static_cast<int>(rows_.size())) return;
    const auto& c = rows_[static_cast<size_t>(column)];
    take_->setEnabled(c.offer >= 0);
    QStringList lines;
    for (const auto& t : c.against) lines << sentence_of(t, document_.units());
    QStringList unknown;
    for (const auto& t : c.unknown) unknown << text_of(t, document_.units());
    if (!unknown.isEmpty()) lines << tr("Not known: %1").arg(unknown.join(QStringLiteral("; ")));
    if (lines.isEmpty()) lines << tr("Nothing speaks against it.");
    if (!c.fits.empty()) lines << sentence_of(c.fits, document_.units());
    if (leg().retraction.drive_offers.empty())
      lines << tr("Choose others below to see them beside it, up to six");
    said_->setText(
        QStringLiteral("<b>%1</b>: %2")
            .arg((c.sold.name.empty() ? tr("what is fitted") : text_of(c.sold.name)).toHtmlEscaped(),
                 lines.join(QStringLiteral(". ")).toHtmlEscaped()));
  }

  Document& document_;
  std::string leg_;
  std::vector<ComparedDrive> rows_;
  QTableWidget* table_;
  QLabel* said_;
  QComboBox* shelf_;
  QPushButton *add_, *copy_, *take_;
  ListTable* entries_;
};

}  // namespace

QWidget* make_drive_dialog(Document& document, const std::string& leg, QWidget* parent) {
  return new DriveDialog(document, leg, parent);
}

}  // namespace kranich::app
