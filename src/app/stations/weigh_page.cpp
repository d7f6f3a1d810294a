// SPDX-License-Identifier: GPL-3.0-or-later
//! Weigh: the ledger as a drawing and as a table, loadings, scales.
#include <QCheckBox>
#include <QComboBox>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLineEdit>
#include <QTableWidget>
#include <cmath>

#include "app/document/when_seen.h"
#include "app/drawing/envelope_pane.h"
#include "app/drawing/panes.h"
#include "app/stations/page.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/entry_table.h"
#include "app/widgets/findings.h"
#include "app/widgets/list_table.h"
#include "core/assess/loading_state.h"
#include "core/io/csv.h"
#include "core/model/moves.h"

namespace kranich::app {
namespace {

//! Furthest a place in the file may lie from the datum, m.
constexpr double furthest_place = 60;

enum Column {
  name,
  group,
  mass,
  tolerance,
  place_x,
  place_y,
  place_z,
  weighed,
  moves,
  slides_from,
  slides_to,
  column_count
};

class WeighPage : public StationPage, public EntryTable {
 public:
  explicit WeighPage(Document& document)
      : StationPage(document, Station::weigh), table_(new QTableWidget(this)) {
    board()->add(std::make_unique<SidePane>(document, Overlay::weigh), {0, 0, 0.68, 1});
    board()->add(std::make_unique<EnvelopePane>(document), {0.68, 0, 0.32, 1});
    build_table();
    heading(tr("Aboard in this loading"));
    aboard_box_ = put(new QWidget(this));
    aboard_ = new QVBoxLayout(aboard_box_);
    aboard_->setContentsMargins(0, 0, 0, 0);
    aboard_->setSpacing(2);
    aboard_tables_ = new QVBoxLayout;
    auto* instead = put(new QWidget(this));
    instead->setLayout(aboard_tables_);
    aboard_tables_->setContentsMargins(0, 0, 0, 0);
    auto* parts = button(tr("Parts weighed against each other …"),
                         tr("Mass times number, price and where the CG goes; takes one into the ledger"));
    parts->setObjectName("parts");
    connect(parts, &QPushButton::clicked, this, [this] { make_parts_dialog(document_, window())->show(); });
    add_findings(tr("What it comes to"));
    heading(tr("Limits"), tr("the designer's"));
    field("/airframe/cg_forward_limit_m");
    field("/airframe/cg_aft_limit_m");
    field("/airframe/mass_limit_kg");
    field("/airframe/target_empty_mass_kg");
    heading(tr("To bring the CG to"), tr("this loading"));
    build_ballast();
    heading(tr("On the scales"), tr("level, contacts where they stood"));
    auto* scales = button(tr("Read from scales …"), tr("A serial line, or the simulated set"));
    scales->setObjectName("read-scales");
    connect(scales, &QPushButton::clicked, this, [this] { make_scales_dialog(document_, window())->show(); });
    reconcile_ =
        button(tr("Take the difference into the ledger"),
               tr("Adds one item that makes up what the ledger lacks against the scales; never by itself"));
    reconcile_->setObjectName("reconcile");
    connect(reconcile_, &QPushButton::clicked, this, &WeighPage::reconcile);
    build_scales();
    put(new TextRow(document_, "/weighing/build_state", tr("Built as"), this));
    put(new TextRow(document_, "/weighing/loading", tr("Compared with"), this));
    state_ = remark();
    heading(tr("With the nose raised"), tr("legs blocked, wheels free to roll"));
    for (const char* path :
         {"/weighing/tilted_third_kg", "/weighing/tilt_pitch_deg", "/weighing/third_above_main_m",
          "/weighing/main_axle_z_m", "/weighing/main_axle_height_m", "/weighing/reading_error_kg",
          "/weighing/pitch_error_deg"})
      field(path);
    finish();
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed, &Document::view_changed);
    refresh();
  }

 private:
  //! What each scale said and where; any number of them.
  void build_scales() {
    auto* under_each = button(tr("A scale under each wheel"),
                              tr("Adds a line for every wheel that has none, where it stands now"));
    under_each->setObjectName("scales-under-each");
    connect(under_each, &QPushButton::clicked, this, [this] {
      document_.edit(tr("A scale under each wheel"), [](Design& d) { weigh::scale_under_each(d); });
    });
    auto* table = new ListTable(document_, "/weighing/scales",
                                {{"leg", tr("On it"), Refers::leg, true},
                                 {"reading_kg", tr("Reads")},
                                 {"tare_kg", tr("Tare")},
                                 {"x_m", tr("At")},
                                 {"y_m", tr("Stbd")},
                                 {"name", tr("Scale")}},
                                {}, this);
    table->table()->verticalHeader()->hide();
    table->setMinimumHeight(170);
    put(table);
  }

  //! Target CG and a place for ballast; the answer below.
  void build_ballast() {
    const auto entry = [&](const QString& title, const char* id, const QString& text) {
      auto* row = new QWidget(this);
      auto* line = new QHBoxLayout(row);
      line->setContentsMargins(0, 1, 0, 1);
      auto* e = new QLineEdit(text, row);
      e->setObjectName(id);
      e->setAccessibleName(title);
      e->setAlignment(Qt::AlignRight);
      e->setFont(figure_font(9));
      e->setFixedWidth(86);
      line->addWidget(new QLabel(title, row), 1);
      line->addWidget(e);
      auto* unit = new QLabel(row);
      unit->setFixedWidth(93);
      line->addWidget(unit);
      ballast_units_.push_back(unit);
      put(row);
      connect(e, &QLineEdit::textEdited, this, &WeighPage::solve_ballast);
      return e;
    };
    target_ = entry(tr("Target station"), "ballast-target", {});
    place_ = entry(tr("Ballast at station"), "ballast-place", {});
    ballast_ = remark();
    ballast_->setObjectName("ballast-answer");
  }

  void solve_ballast() {
    for (auto* u : ballast_units_) u->setText(document_.unit(Kind::length));
    const auto* l = document_.loading();
    if (!l || !l->mass.known() || target_->text().trimmed().isEmpty()) {
      ballast_->setText(tr("type a station: ballast and the move of each sliding item are worked out"));
      return;
    }
    const auto read = [&](QLineEdit* e) {
      return parse_quantity(as_typed(e->text()), Kind::length, document_.units());
    };
    const auto target = read(target_);
    if (const auto* error = std::get_if<ParseError>(&target)) {
      ballast_->setText(text_of(error->message));
      return;
    }
    const double to = std::get<ParsedQuantity>(target).si;
    const auto& m = l->mass.down;
    QStringList answers;
    const auto at = read(place_);
    if (const auto* q = std::get_if<ParsedQuantity>(&at)) {
      const double kg = weigh::ballast(m.mass, m.at.x(), to, q->si);
      answers << (kg >= 0 && std::isfinite(kg)
                      ? tr("<b>%1</b> of ballast at %2")
                            .arg(document_.say(kg, Kind::mass), document_.say(q->si, Kind::length))
                      : tr("no ballast at %1 does it: it must lie beyond the target")
                            .arg(document_.say(q->si, Kind::length)));
    }
    for (const auto& item : document_.design().ledger) {
      if (!item.slides || !item.mass.known() || !item.at.x.known()) continue;
      const double by = weigh::move_of_item(m.mass, m.at.x(), to, item.mass);
      const bool fits = !item.slides_from.known() || !item.slides_to.known() ||
                        (item.at.x + by >= item.slides_from && item.at.x + by <= item.slides_to);
      answers << tr("or “%1” %2 by <b>%3</b>%4")
                     .arg(text_of(item.name), by >= 0 ? tr("aft") : tr("forward"),
                          document_.say(std::abs(by), Kind::length),
                          fits ? QString() : tr(", further than its tray goes"));
    }
    ballast_->setText(answers.isEmpty() ? tr("type where ballast could go") : answers.join("<br>"));
  }

  //! What the ledger lacks against the scales; level scales say nothing of its height, so the ledger's stays.
  std::optional<weigh::Mass> missing_item() const {
    const Design& d = document_.design();
    const LoadingState* ledger = document_.assessment().find(d.weighing.loading);
    auto scales = weigh::on_scales(d).mass;
    if (!scales || !ledger || !ledger->mass.known()) return std::nullopt;
    scales->at.z() = ledger->mass.down.at.z();
    return weigh::difference(*scales, ledger->mass.down);
  }
  //! It can be an item of the ledger: something, and in or near the aircraft.
  static bool can_be_item(const weigh::Mass& m) {
    return m.mass > 0 && std::abs(m.at.x()) <= furthest_place && std::abs(m.at.y()) <= furthest_place;
  }

  void reconcile() {
    const auto item = missing_item();
    if (!item || !can_be_item(*item)) return;
    document_.edit(tr("Take the scales' difference into the ledger"), [&](Design& d) {
      Item i;
      i.name = unused_name(d.ledger, "found on the scales");
      i.group = Group::equipment;
      i.mass = Given(item->mass, Origin::measured);
      i.weighed = true;
      // Where it must lie for the CG to agree.
      i.at.x = Given(item->at.x(), Origin::estimated);
      i.at.y = Given(item->at.y(), Origin::estimated);
      i.at.z = Given(item->at.z(), Origin::estimated);
      d.ledger.push_back(i);
    });
  }

  void show_reconcile() {
    const auto item = missing_item();
    reconcile_->setVisible(item.has_value());
    if (!item) return;
    reconcile_->setEnabled(can_be_item(*item));
    const QString mass = document_.say(std::abs(item->mass), Kind::mass);
    reconcile_->setText(
        item->mass <= 0 ? tr("The ledger is %1 too heavy").arg(mass)
        : can_be_item(*item)
            ? tr("Add %1 at %2 to the ledger").arg(mass, document_.say(item->at.x(), Kind::length))
            : tr("%1 differ, but no place for them explains the CG").arg(mass));
  }

  void build_table() {
    auto* below = new QWidget(this);
    auto* all = new QVBoxLayout(below);
    all->setContentsMargins(10, 4, 10, 6);
    all->setSpacing(4);
    auto* line = new QHBoxLayout;
    note_ = new QLabel(below);
    note_->setObjectName("ledger-note");
    note_->setFont(text_font(8));
    line->addWidget(new QLabel(tr("<b>Ledger</b>"), below));
    line->addWidget(note_, 1);
    const auto button = [&](const QString& text, const char* id, auto&& does) {
      auto* b = new QPushButton(text, below);
      b->setObjectName(id);
      connect(b, &QPushButton::clicked, this, does);
      line->addWidget(b);
    };
    button(tr("Add item"), "ledger-add", [this] { add_item(); });
    button(tr("Remove"), "ledger-remove", [this] { remove_item(); });
    button(tr("From CSV …"), "ledger-import", [this] {
      import_csv(QFileDialog::getOpenFileName(this, tr("Ledger from a table"), {}, tr("Tables (*.csv)")));
    });
    button(tr("To CSV …"), "ledger-export", [this] {
      export_csv(
          QFileDialog::getSaveFileName(this, tr("Ledger as a table"), "ledger.csv", tr("Tables (*.csv)")));
    });
    all->addLayout(line);
    table_->setObjectName("ledger");
    table_->setColumnCount(column_count);
    table_->setAccessibleName(tr("Mass ledger"));
    table_->verticalHeader()->setDefaultSectionSize(23);
    table_->verticalHeader()->hide();
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Interactive);
    all->addWidget(table_);
    put_below(below, 252);
    connect(table_, &QTableWidget::cellChanged, this, &WeighPage::cell_edited);
  }

  QString say(double v, Kind kind) const {
    return std::isfinite(v) ? document_.say_number(v, kind) : QString();
  }

  void refresh() {
    filling_ = true;
    const Design& d = document_.design();
    table_->setHorizontalHeaderLabels(
        {tr("Item"), tr("Group"), tr("Mass, %1").arg(document_.unit(Kind::mass)),
         tr("± %1").arg(document_.unit(Kind::mass)), tr("Station, %1").arg(document_.unit(Kind::length)),
         tr("Side, %1").arg(document_.unit(Kind::length)),
         tr("Waterline, %1").arg(document_.unit(Kind::length)), tr("Weighed"), tr("Moves with"),
         tr("Slides from, %1").arg(document_.unit(Kind::length)),
         tr("to, %1").arg(document_.unit(Kind::length))});
    table_->setRowCount(static_cast<int>(d.ledger.size()));
    for (int r = 0; r < table_->rowCount(); ++r) {
      const Item& i = d.ledger[static_cast<size_t>(r)];
      const auto text = [&](int c, const QString& s, bool right) {
        auto* cell = new QTableWidgetItem(s);
        if (right) {
          cell->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
          cell->setFont(figure_font(9));
        }
        table_->setItem(r, c, cell);
      };
      text(name, QString::fromStdString(i.name), false);
      text(mass, say(i.mass, Kind::mass), true);
      text(tolerance, i.mass.tolerance > 0 ? say(i.mass.tolerance, Kind::mass) : QString(), true);
      text(place_x, say(i.at.x, Kind::length), true);
      text(place_y, say(i.at.y, Kind::length), true);
      text(place_z, say(i.at.z, Kind::length), true);
      text(slides_from, i.slides ? say(i.slides_from, Kind::length) : QString(), true);
      text(slides_to, i.slides ? say(i.slides_to, Kind::length) : QString(), true);
      auto* check = new QTableWidgetItem(i.weighed ? tr("weighed") : tr("estimated"));
      check->setFlags(Qt::ItemIsUserCheckable | Qt::ItemIsEnabled | Qt::ItemIsSelectable);
      check->setCheckState(i.weighed ? Qt::Checked : Qt::Unchecked);
      table_->setItem(r, weighed, check);
      choice_cell(r, group, Names(group_names), static_cast<int>(i.group),
                  [](Item& x, int v) { x.group = static_cast<Group>(v); });
      leg_cell(r, i.moves);
    }
    table_->resizeColumnsToContents();
    refresh_aboard();
    solve_ballast();
    show_reconcile();
    state_->setText(d.weighing.build_state.empty()
                        ? tr("not weighed yet")
                        : tr("weighed as: %1; compared with “%2”")
                              .arg(text_of(d.weighing.build_state), text_of(d.weighing.loading)));
    filling_ = false;
  }

  void choice_cell(int row, int column, Names names, int now, void (*set)(Item&, int)) {
    auto* box = qobject_cast<QComboBox*>(table_->cellWidget(row, column));
    if (!box) {
      box = new QComboBox(table_);
      box->setFrame(false);
      for (const auto n : names) box->addItem(text_of(n));
      table_->setCellWidget(row, column, box);
      connect(box, &QComboBox::activated, this, [this, row, set](int v) {
        document_.edit(
            tr("Change %1")
                .arg(QString::fromStdString(document_.design().ledger[static_cast<size_t>(row)].name)),
            [&](Design& d) { set(d.ledger[static_cast<size_t>(row)], v); });
      });
    }
    box->setCurrentIndex(now);
  }

  //! Which leg an item hangs on and goes with.
  void leg_cell(int row, const std::string& now) {
    auto* box = qobject_cast<QComboBox*>(table_->cellWidget(row, moves));
    if (!box) {
      box = new QComboBox(table_);
      box->setFrame(false);
      table_->setCellWidget(row, moves, box);
      connect(box, &QComboBox::activated, this, [this, row, box](int v) {
        document_.edit(
            tr("Change %1")
                .arg(QString::fromStdString(document_.design().ledger[static_cast<size_t>(row)].name)),
            [&](Design& d) {
              d.ledger[static_cast<size_t>(row)].moves = box->itemData(v).toString().toStdString();
            });
      });
    }
    const Design& d = document_.design();
    QStringList words{tr("no")};
    for (const auto& leg : d.gear.legs) words << text_of(d.legs_word(leg), d.units);
    QStringList shown;
    for (int i = 0; i < box->count(); ++i) shown << box->itemText(i);
    if (shown != words) {
      box->clear();
      box->addItem(words[0], QString());
      for (const auto& leg : d.gear.legs) box->addItem(text_of(d.legs_word(leg), d.units), text_of(leg.id));
    }
    box->setCurrentIndex(std::max(0, box->findData(text_of(now))));
  }

  //! What a column of the ledger shows of an item.
  static const std::map<int, const char*>& keys() {
    static const std::map<int, const char*> list{{mass, "mass_kg"},
                                                 {place_x, "at/x_m"},
                                                 {place_y, "at/y_m"},
                                                 {place_z, "at/z_m"},
                                                 {slides_from, "slides_from_m"},
                                                 {slides_to, "slides_to_m"}};
    return list;
  }
  QWidget* show_entry(const QString& path) override {
    if (!path.startsWith("/ledger/")) return nullptr;
    const int row = path.section('/', 2, 2).toInt();
    for (const auto& [column, key] : keys())
      if (path.section('/', 3) == QString::fromLatin1(key) && row < table_->rowCount()) {
        table_->setCurrentCell(row, column);
        return table_;
      }
    return nullptr;
  }

  void cell_edited(int row, int column) {
    if (filling_ || row < 0 || row >= static_cast<int>(document_.design().ledger.size())) return;
    const auto at = static_cast<size_t>(row);
    const Item& old = document_.design().ledger[at];
    const QString entry = table_->item(row, column)->text().trimmed();
    const QString what = tr("Edit %1").arg(QString::fromStdString(old.name));
    if (column == weighed) {
      const bool is = table_->item(row, column)->checkState() == Qt::Checked;
      document_.edit(what, [&](Design& d) {
        d.ledger[at].weighed = is;
        d.ledger[at].mass.origin = is ? Origin::measured : Origin::estimated;
      });
      return;
    }
    if (column == name) {
      const std::string wanted = entry.toStdString();
      const auto& ledger = document_.design().ledger;
      const bool used = std::any_of(ledger.begin(), ledger.end(),
                                    [&](const Item& i) { return &i != &old && i.name == wanted; });
      if (wanted.empty() || used) {
        refuse(wanted.empty() ? tr("An item needs a name.") : tr("“%1” is used already.").arg(entry));
        return;
      }
      document_.edit(what, [&](Design& d) {
        for (auto& l : d.loadings)
          for (auto& a : l.aboard)
            if (a.item == d.ledger[at].name) a.item = wanted;
        d.ledger[at].name = wanted;
      });
      return;
    }
    const std::string path =
        "/ledger/" + std::to_string(row) + "/" + (column == tolerance ? "mass_kg" : keys().at(column));
    Design probe = document_.design();
    const auto target = locate_given(probe, path);
    if (!target) return;
    double si = std::numeric_limits<double>::quiet_NaN();
    if (!entry.isEmpty()) {
      const auto parsed = parse_quantity(as_typed(entry), target->spec.kind, document_.units());
      if (const auto* error = std::get_if<ParseError>(&parsed))
        return refuse(QString::fromStdString(error->message));
      si = std::get<ParsedQuantity>(parsed).si;
      const Spec allowed =
          column == tolerance ? spec::not_negative("Tolerance", Kind::mass, 20000) : target->spec;
      if (const auto why = refusal(si, allowed, document_.units()))
        return refuse(
            tr("%1 %2").arg(table_->horizontalHeaderItem(column)->text(), QString::fromStdString(*why)));
    }
    note_->clear();
    document_.edit(what, [&](Design& d) {
      Given& g = *locate_given(d, path)->given;
      if (column == tolerance) {
        g.tolerance = std::isfinite(si) ? si : 0;
        return;
      }
      g.si = si;
      if (g.origin == Origin::missing || !std::isfinite(si))
        g.origin = std::isfinite(si) ? Origin::estimated : Origin::missing;
      if (column == slides_from || column == slides_to) {
        Item& item = d.ledger[at];
        item.slides = item.slides_from.known() || item.slides_to.known();
      }
    });
    refresh();
  }

  void refuse(const QString& why) {
    refresh();
    note_->setText(tr("<span style='color:%1'>%2 The last good value stays.</span>")
                       .arg(Theme::now().fails.name(), why.toHtmlEscaped()));
  }

  void add_item() {
    document_.edit(tr("Add an item"), [](Design& d) {
      Item i;
      i.name = unused_name(d.ledger, "new item");
      d.ledger.push_back(i);
    });
    table_->selectRow(table_->rowCount() - 1);
    table_->scrollToBottom();
  }

  void remove_item() {
    const int row = table_->currentRow();
    if (row < 0 || row >= static_cast<int>(document_.design().ledger.size())) return;
    document_.edit(tr("Remove an item"), [&](Design& d) {
      const std::string gone = d.ledger[static_cast<size_t>(row)].name;
      d.ledger.erase(d.ledger.begin() + row);
      for (auto& l : d.loadings) std::erase_if(l.aboard, [&](const Aboard& a) { return a.item == gone; });
    });
  }

  void import_csv(const QString& file) {
    if (file.isEmpty()) return;
    const auto text = read_text_file(file.toStdString());
    auto read = ledger_from_csv(text ? *text : std::string());
    if (!read.faults.empty()) {
      refuse(tr("%1: %2, %3 (%4 faults; nothing was changed).")
                 .arg(file, text_of(read.faults[0].where), text_of(read.faults[0].what))
                 .arg(read.faults.size()));
      return;
    }
    document_.edit(tr("Ledger from a table"), [&](Design& d) {
      d.ledger = std::move(read.items);
      for (auto& l : d.loadings)
        std::erase_if(l.aboard, [&](const Aboard& a) {
          return std::none_of(d.ledger.begin(), d.ledger.end(),
                              [&](const Item& i) { return i.name == a.item && i.group == Group::load; });
        });
    });
  }

  void export_csv(const QString& file) {
    if (file.isEmpty()) return;
    const auto why = write_file_atomically(file.toStdString(), ledger_to_csv(document_.design().ledger));
    note_->setText(why ? tr("%1: %2").arg(file, text_of(*why)) : tr("written to %1").arg(file));
  }

  void refresh_aboard() {
    while (QLayoutItem* item = aboard_->takeAt(0)) {
      if (item->widget()) item->widget()->deleteLater();
      delete item;
    }
    const Design& d = document_.design();
    const auto loading = std::find_if(d.loadings.begin(), d.loadings.end(), [&](const Loading& l) {
      return l.name == document_.loading_name().toStdString();
    });
    if (loading == d.loadings.end()) return;
    const size_t index = static_cast<size_t>(loading - d.loadings.begin());
    show_aboard_table(index);
    for (const auto& item : d.ledger) {
      if (item.group != Group::load) continue;
      const auto aboard = std::find_if(loading->aboard.begin(), loading->aboard.end(),
                                       [&](const Aboard& a) { return a.item == item.name; });
      const bool is = aboard != loading->aboard.end();
      const double kg = is && aboard->mass.known() ? aboard->mass.si : item.mass.si;
      auto* box =
          new QCheckBox(tr("%1, %2").arg(text_of(item.name), document_.say(kg, Kind::mass)), aboard_box_);
      box->setObjectName("aboard:" + QString::fromStdString(item.name));
      box->setChecked(is);
      connect(box, &QCheckBox::toggled, this, [this, index, item = item.name](bool on) {
        document_.edit(on ? tr("Take %1 aboard").arg(QString::fromStdString(item))
                          : tr("Leave %1 out").arg(QString::fromStdString(item)),
                       [&](Design& x) {
                         auto& list = x.loadings[index].aboard;
                         if (on) {
                           Aboard a;
                           a.item = item;
                           list.push_back(a);
                         } else {
                           std::erase_if(list, [&](const Aboard& a) { return a.item == item; });
                         }
                       });
      });
      aboard_->addWidget(box);
    }
  }

  //! What of it is aboard in another amount, or elsewhere, than the ledger says.
  void show_aboard_table(size_t index) {
    if (index == shown_loading_) return;
    shown_loading_ = index;
    clear_layout(aboard_tables_);
    auto* table = new ListTable(
        document_, QStringLiteral("/loadings/%1/aboard").arg(index),
        {{"item", tr("Aboard")}, {"mass_kg", tr("mass here")}, {"x_m", tr("station here")}}, {}, this);
    table->table()->verticalHeader()->hide();
    table->setFixedHeight(132);
    aboard_tables_->addWidget(table);
  }

  QTableWidget* table_;
  QLineEdit* target_ = nullptr;
  QLineEdit* place_ = nullptr;
  QLabel* ballast_ = nullptr;
  std::vector<QLabel*> ballast_units_;
  QPushButton* reconcile_ = nullptr;
  QLabel* note_ = nullptr;
  QLabel* state_ = nullptr;
  QWidget* aboard_box_ = nullptr;
  QVBoxLayout* aboard_ = nullptr;
  QVBoxLayout* aboard_tables_ = nullptr;
  size_t shown_loading_ = static_cast<size_t>(-1);
  bool filling_ = false;
};

}  // namespace

StationPage* make_weigh_page(Document& document) { return new WeighPage(document); }

}  // namespace kranich::app
