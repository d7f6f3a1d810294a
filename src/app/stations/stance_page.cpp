// SPDX-License-Identifier: GPL-3.0-or-later
//! Stance: how it sits on its springs and tyres, the shim that gives a wanted pitch, and the sheet of heights
//! to check on the table.
#include <QFileDialog>
#include <QHeaderView>
#include <QLineEdit>
#include <QTableWidget>
#include <cmath>

#include "app/document/when_seen.h"
#include "app/drawing/panes.h"
#include "app/drawing/picture.h"
#include "app/stations/page.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/list_table.h"
#include "core/assess/loading_state.h"
#include "core/assess/table_sheet.h"
#include "core/assess/trim.h"
#include "core/model/moves.h"

namespace kranich::app {
namespace {

class StancePage : public StationPage {
 public:
  explicit StancePage(Document& document) : StationPage(document, Station::stance) {
    board()->add(std::make_unique<SidePane>(document, Overlay::stance), {0, 0, 1, 0.66});
    board()->add(std::make_unique<FrontPane>(document), {0, 0.66, 0.55, 0.34});
    board()->add(std::make_unique<PlanPane>(document), {0.55, 0.66, 0.45, 0.34});
    heading(tr("Stance wanted"), tr("wing to the ground, at rest"));
    field("/stance/wing_angle_low_deg", tr("From"));
    field("/stance/wing_angle_high_deg", tr("To"));
    field("/airframe/wing/incidence_deg", tr("Wing incidence to the reference"));
    heading(tr("Shim for a wanted pitch"), tr("this loading, whole equilibrium"));
    auto* row = new QWidget(this);
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(0, 0, 0, 0);
    auto* label = new QLabel(tr("Pitch wanted"), row);
    wanted_ = new QLineEdit(row);
    // What is wanted at rest, less the incidence, is a sensible place to start.
    const Design& now = document_.design();
    const double middle = (now.stance.target_low + now.stance.target_high) / 2 - now.airframe.wing.incidence;
    if (std::isfinite(middle)) wanted_->setText(document_.say_number(middle, Kind::angle));
    wanted_->setObjectName("shim-target");
    wanted_->setAccessibleName(tr("Pitch wanted"));
    wanted_->setFont(figure_font(9));
    wanted_->setAlignment(Qt::AlignRight);
    wanted_->setFixedWidth(86);
    line->addWidget(label, 1);
    line->addWidget(wanted_);
    line->addWidget(new QLabel(QStringLiteral("°"), row));
    put(row);
    answer_ = remark();
    answer_->setObjectName("shim-answer");
    apply_ =
        button(tr("Put the shim in"), tr("Lowers the leg with its mount by that much; Ctrl+Z takes it back"));
    heading(tr("Ways to trim"), tr("each alone, with what it costs"));
    ways_note_ = remark();
    ways_note_->setObjectName("trim-note");
    auto* ways = new QWidget(this);
    ways_ = new QVBoxLayout(ways);
    ways_->setContentsMargins(0, 0, 0, 0);
    ways_->setSpacing(2);
    put(ways);
    field("/stance/table_slope_deg", tr("Slope of the table, nose up"));
    add_findings(tr("What it does"));
    heading(tr("Two rests"), tr("height of one point over the leg"));
    for (const Leg& leg : document_.design().gear.legs) {
      const QString name = capitalised(text_of(document_.design().legs_word(leg), document_.units()));
      put(new QuantityRow(document_, leg_path(leg.id) + "rest_pressed_m",
                          tr("%1, after pressing down").arg(name), this));
      put(new QuantityRow(document_, leg_path(leg.id) + "rest_lifted_m", tr("%1, after lifting").arg(name),
                          this));
    }
    auto* take = button(tr("Take the friction over"),
                        tr("What the two rests tell becomes the friction of each leg; Ctrl+Z takes it back"));
    take->setObjectName("take-rest-friction");
    connect(take, &QPushButton::clicked, this, [this] {
      document_.edit(tr("Friction of the legs as two rests tell"), [this](Design& d) {
        for (Leg& leg : d.gear.legs)
          if (const auto told = rest_friction(d, document_.assessment(), leg); told && told->friction >= 0)
            leg.spring.friction = Given(told->friction, Origin::measured);
      });
    });
    heading(tr("Springs and tyres"), tr("at the wheel"));
    for (const Leg& leg : document_.design().gear.legs) {
      const QString word = text_of(document_.design().legs_word(leg), document_.units());
      const QString name = capitalised(word);
      put(new QuantityRow(document_, leg_path(leg.id) + "travel_m", tr("%1, travel").arg(name), this));
      put(new QuantityRow(document_, leg_path(leg.id) + "wheel/tyre_rate_N_per_m",
                          tr("%1, tyre rate").arg(name), this));
    }
    if (const Design& d = document_.design();
        d.gear.has(LegRole::main) && d.gear.main().stands != LegStands::centre) {
      heading(tr("Port leg"), tr("stored as if to starboard"));
      unlinked_ = put(new QCheckBox(tr("Measured on its own"), this));
      unlinked_->setObjectName("unlinked");
      unlinked_->setChecked(d.unlinked());
      connect(unlinked_, &QCheckBox::toggled, this, [this](bool on) {
        // What was one leg for both starts as the same on both sides.
        document_.edit(on ? tr("Measure the port leg on its own") : tr("Port leg as the starboard one"),
                       [on](Design& x) {
                         const size_t of_mains = row_of(x.gear, x.gear.main().id);
                         on ? unlink_leg(x, of_mains) : link_leg(x, of_mains);
                       });
      });
      if (d.unlinked())
        for (const char* path : {"axle/x_m", "axle/y_m", "axle/z_m"})
          put(new QuantityRow(document_, leg_path(d.port_leg().id) + path, {}, this));
    }
    heading(tr("Lean of the legs when down"), tr("foot aft, from the side"));
    for (const Leg& leg : document_.design().gear.legs)
      put(new QuantityRow(
          document_, leg_path(leg.id) + "lean_deg",
          tr("%1, wanted").arg(capitalised(text_of(document_.design().legs_word(leg), document_.units()))),
          this));
    put(new TextRow(document_, "/stance/loading", tr("Stands so in the loading"), this));
    heading(tr("Picture behind the side view"), tr("how it is to stand"));
    auto* picture =
        button(tr("Choose a picture …"),
               tr("A side view to stand the gear against: PNG, JPEG, SVG, or a PDF's first page"));
    picture->setObjectName("choose-picture");
    connect(picture, &QPushButton::clicked, this, [this] {
      lay_picture(QFileDialog::getOpenFileName(this, tr("Picture of the side view"), {}, picture_files()));
    });
    put(new FlagRow(document_, "/picture/shown", tr("Shown"), this));
    field("/picture/left_x_m");
    field("/picture/bottom_z_m");
    field("/picture/width_m");
    field("/picture/turned_deg");
    field("/picture/fade");
    put(new FlagRow(document_, "/picture/mirrored", tr("Mirrored"), this));
    auto* mark = button(tr("Mark the original's wheels"),
                        tr("Rings and a line to drag onto the picture; what differs is written beside them"));
    mark->setObjectName("mark-original");
    connect(mark, &QPushButton::clicked, this, [this] { mark_original(); });
    for (const char* key : {"main_x_m", "main_z_m", "main_diameter_m", "third_x_m", "third_z_m",
                            "third_diameter_m", "propeller_z_m"})
      put(new QuantityRow(document_, QStringLiteral("/original/") + QLatin1String(key), {}, this));
    heading(tr("Unfinished airframe"));
    field("/stance/ballast_x_m");
    finish();
    build_sheet();
    connect(wanted_, &QLineEdit::textEdited, this, &StancePage::solve);
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed, &Document::view_changed);
    connect(apply_, &QPushButton::clicked, this, [this] {
      if (!shim_) return;
      document_.edit(tr("Shim the %1 leg").arg(in_tongue(document_.design().third_word())),
                     [by = *shim_, rows = shimmed()](Design& d) { shift_legs(d, rows, 0, 0, -by); });
    });
    refresh();
  }

 private:
  //! As long as the aircraft is drawn, standing on the ground; the numbers then say where it lies.
  void lay_picture(const QString& file) {
    if (file.isEmpty()) return;
    const QRectF box = side_bounds(pose_now(document_));
    const double contact = pose_now(document_).main_contact().x();
    document_.edit(tr("Picture behind the side view"), [&](Design& d) {
      Picture& p = d.picture;
      p.file = picture_name(document_, file);
      p.shown = true;
      if (p.width.known() && p.left_x.known() && p.bottom_z.known()) return;
      const double station = d.gear.main().axle.x.known() ? d.gear.main().axle.x.si : 0;
      p.width = Given(box.width(), Origin::estimated);
      p.left_x = Given(box.left() - contact + station, Origin::estimated);
      p.bottom_z = Given(0.0, Origin::estimated);
    });
  }

  //! What is not marked yet starts where this aircraft has it.
  void mark_original() {
    const Pose pose = pose_now(document_);
    document_.edit(tr("Mark the original's wheels"), [&](Design& d) {
      const auto start = [](Given& g, double at) {
        if (!g.known() && std::isfinite(at)) g = Given(at, Origin::estimated);
      };
      if (!d.gear.has(LegRole::main) || !d.gear.main().axle.x.known()) return;
      const Leg &main = d.gear.main(), &third = d.gear.third();
      const double from = pose.main_contact().x() - main.axle.x;
      Original& o = d.original;
      const QPointF main_at = pose.side(pose.main_axle());
      start(o.main_x, main_at.x() - from);
      start(o.main_z, main_at.y());
      start(o.main_diameter, main.wheel.diameter);
      if (third.id != main.id) {
        const QPointF third_at = pose.side(pose.third_axle());
        start(o.third_x, third_at.x() - from);
        start(o.third_z, third_at.y());
        start(o.third_diameter, third.wheel.diameter);
      }
      for (const auto& p : d.airframe.propellers)
        if (p.hub.known()) start(o.propeller_z, pose.side(p.hub.vec()).y());
    });
  }

  void build_sheet() {
    auto* below = new QWidget(this);
    auto* all = new QVBoxLayout(below);
    all->setContentsMargins(10, 4, 10, 6);
    all->setSpacing(3);
    sheet_note_ = new QLabel(below);
    sheet_note_->setFont(text_font(8));
    all->addWidget(sheet_note_);
    sheet_ = new QTableWidget(below);
    sheet_->setObjectName("table-sheet");
    sheet_->setAccessibleName(tr("Heights to check on the table"));
    sheet_->setColumnCount(7);
    sheet_->verticalHeader()->hide();
    sheet_->verticalHeader()->setDefaultSectionSize(22);
    all->addWidget(sheet_);
    put_below(below, 196);
    connect(sheet_, &QTableWidget::cellChanged, this, &StancePage::reading_typed);
  }

  void fill_sheet() {
    filling_ = true;
    const auto number = [&](double v, bool angle) {
      return std::isfinite(v) ? document_.say_number(v, angle ? Kind::angle : Kind::length) : QString();
    };
    lines_.clear();
    for (auto& line : table_sheet(document_.design(), document_.assessment()))
      if (line.loading == document_.loading_name().toStdString()) lines_.push_back(line);
    const QString unit = document_.unit(Kind::length);
    sheet_->setHorizontalHeaderLabels({tr("Above the table, %1 or °").arg(unit), tr("computed"), tr("port"),
                                       tr("read"), tr("read port"), tr("read − computed"),
                                       tr("starboard − port")});
    sheet_->setRowCount(static_cast<int>(lines_.size()));
    for (int r = 0; r < sheet_->rowCount(); ++r) {
      const TableLine& l = lines_[static_cast<size_t>(r)];
      const auto cell = [&](int c, const QString& text, bool editable, Ink ink = Ink::normal) {
        auto* item = new QTableWidgetItem(text);
        item->setFlags(editable ? Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsEditable
                                : Qt::ItemIsEnabled | Qt::ItemIsSelectable);
        if (c > 0) {
          item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
          item->setFont(figure_font(9));
        }
        if (ink != Ink::normal) item->setForeground(ink_colour(ink));
        if (editable) item->setBackground(Theme::now().card);
        sheet_->setItem(r, c, item);
      };
      cell(0, text_of(l.what, document_.units()), false);
      cell(1, number(l.computed_starboard, l.is_angle), false);
      cell(2, number(l.computed_port, l.is_angle), false);
      cell(3, number(l.read_starboard, l.is_angle), true);
      cell(4, number(l.read_port, l.is_angle), l.both_sides);
      const double off = l.off();
      const double allowed = l.allowed(document_.design().is_model());
      const Kind kind = l.is_angle ? Kind::angle : Kind::length;
      const bool fails = std::abs(off) > allowed;
      // The verdict in words too: colour alone tells nothing on a print or to who cannot see it.
      cell(5,
           std::isfinite(off)
               ? tr("%1, %2 (± %3)")
                     .arg(QString::fromStdString(format_difference(off, kind, document_.units())),
                          text_of(verdict_word(fails ? Verdict::fails : Verdict::holds)),
                          document_.say_number(allowed, kind))
               : QString(),
           false, fails ? Ink::fails : Ink::normal);
      const double sides = l.read_starboard - l.read_port;
      cell(6,
           std::isfinite(sides)
               ? QString::fromStdString(format_difference(sides, Kind::length, document_.units()))
               : QString(),
           false);
    }
    sheet_->resizeColumnsToContents();
    sheet_->setColumnWidth(0, std::max(sheet_->columnWidth(0), 230));
    filling_ = false;
  }

  void reading_typed(int row, int column) {
    if (filling_ || (column != 3 && column != 4) || row >= static_cast<int>(lines_.size())) return;
    const TableLine line = lines_[static_cast<size_t>(row)];
    const QString entry = sheet_->item(row, column)->text().trimmed();
    double si = std::numeric_limits<double>::quiet_NaN();
    if (!entry.isEmpty()) {
      const auto parsed =
          parse_quantity(as_typed(entry), line.is_angle ? Kind::angle : Kind::length, document_.units());
      const auto* q = std::get_if<ParsedQuantity>(&parsed);
      const bool allowed = q && std::abs(q->si) <= (line.is_angle ? radians(90) : 60);
      if (!allowed) {
        sheet_note_->setText(
            QStringLiteral("<span style='color:%1'>%2</span>")
                .arg(Theme::now().fails.name(),
                     q ? tr("%1: that is no height on a table").arg(entry.toHtmlEscaped())
                       : QString::fromStdString(std::get<ParseError>(parsed).message).toHtmlEscaped()));
        return fill_sheet();
      }
      si = q->si;
    }
    document_.edit(tr("Read %1").arg(text_of(line.what, document_.units())),
                   [&](Design& d) { set_reading(d, line, column == 4, si); });
  }

  void refresh() {
    solve();
    fill_sheet();
    const auto state = build_state_names[static_cast<size_t>(document_.design().purpose.build_state)];
    sheet_note_->setText(
        tr("<b>Table sheet</b> &nbsp; stand it level and square, press down and let go, read with a "
           "ruler and an incidence meter; readings are kept as taken “%1”")
            .arg(text_of(state)));
  }

  //! Every way to the wanted pitch, worked out beside the interface once the hand rests.
  void find_ways(double target) {
    clear_ways();  // what was worked out for another pitch or design is not to be tried any more
    if (document_.before_drag()) return;
    ways_note_->setVisible(true);
    ways_note_->setText(tr("being worked out …"));
    ways_work_.start<std::vector<TrimWay>>(
        [design = document_.design(), before = document_.assessment(),
         loading = document_.loading_name().toStdString(), target](const Progress& progress) {
          return ways_to_trim(design, before, loading, target, progress);
        },
        [this](std::vector<TrimWay> ways) { show_ways(ways); });
  }

  void clear_ways() {
    ways_work_.cancel();
    clear_layout(ways_);
  }

  void show_ways(const std::vector<TrimWay>& ways) {
    clear_ways();
    int shown = 0;
    for (const auto& way : ways) {
      if (++shown > 8) break;
      const UnitSystem units = document_.units();
      // What a millimetre, a newton, a degree of it does.
      const QString symbol = document_.unit(way.knob->kind);
      const Unit* unit = find_unit(way.knob->kind, symbol.toStdString());
      const double degrees_each = degrees(way.slope * (unit ? unit->to_si : 1));
      const QString slope =
          tr("%1° for each %2")
              .arg(with_decimal_mark(QString::number(degrees_each, 'g', 2)).replace('-', QChar(0x2212)),
                   symbol.isEmpty() ? tr("one") : symbol);
      QStringList worse;
      if (way.cure)
        for (const auto& p : way.cure->worse)
          worse << QStringLiteral("<span style='color:%1'>%2 %3</span>")
                       .arg(Theme::now().of(p.after).name(), html(text_of(measure(p.measure_id).title)),
                            text_of(verdict_word(p.after)));
      auto* row = new QWidget(this);
      auto* line = new QHBoxLayout(row);
      line->setContentsMargins(0, 0, 0, 0);
      auto* text = new QLabel(
          QStringLiteral("<b>%1</b><br><span style='font-size:7.5pt'>%2%3</span>")
              .arg(
                  html(way.cure ? sentence_of(way.cure->text, units) : sentence_of(way.knob->named(), units)),
                  slope,
                  !way.cure         ? tr("; does not get there alone")
                  : worse.isEmpty() ? tr("; nothing else gets worse")
                                    : QStringLiteral("; ") + worse.join(QStringLiteral(", "))),
          row);
      text->setWordWrap(true);
      text->setFont(text_font(8.5));
      line->addWidget(text, 1);
      if (way.cure) {
        auto* put_in = new QPushButton(tr("try"), row);
        put_in->setFlat(true);
        put_in->setObjectName("trim:" + QString::fromStdString(way.knob->id));
        put_in->setAccessibleName(tr("Try: %1").arg(sentence_of(way.cure->text, units)));
        connect(put_in, &QPushButton::clicked, this, [this, cure = *way.cure] {
          document_.edit(sentence_of(cure.text, document_.units()), [&](Design& d) { d = cure.applied(d); });
        });
        line->addWidget(put_in, 0, Qt::AlignTop);
      }
      ways_->addWidget(row);
    }
    ways_note_->setText(ways.empty() ? tr("type the pitch it should rest at") : QString());
    ways_note_->setVisible(ways.empty());
  }

  void solve() {
    shim_.reset();
    apply_->setEnabled(false);
    if (wanted_->text().trimmed().isEmpty()) {
      answer_->setText(tr("type the pitch it should rest at: the shim is worked out"));
      return;
    }
    const auto parsed = parse_quantity(as_typed(wanted_->text()), Kind::angle, document_.units());
    if (const auto* error = std::get_if<ParseError>(&parsed)) {
      answer_->setText(text_of(error->message));
      return;
    }
    const double target = std::get<ParsedQuantity>(parsed).si;
    find_ways(target);
    const auto* l = document_.loading();
    if (!l || !l->mass.known() || !document_.assessment().wheels) {
      answer_->setText(tr("needs an aircraft that stands on its wheels"));
      return;
    }
    shim_ = shim_for_pitch(document_.design(), l->name, shimmed(), target);
    const QString leg = in_tongue(document_.design().third_word());
    if (!shim_) {
      answer_->setText(tr("no shim under the %1 leg gives that").arg(leg));
      return;
    }
    const QString size = document_.say(std::abs(*shim_), Kind::length);
    answer_->setText(*shim_ >= 0 ? tr("<b>%1</b> shim under the %2 leg").arg(size, leg)
                                 : tr("let the %2 leg in by <b>%1</b>").arg(size, leg));
    apply_->setEnabled(std::abs(*shim_) > 1e-6 && !document_.before_drag());
  }
  //! The legs that a shim goes under: nose or tail leg, of an aircraft with neither the foremost mains.
  std::vector<size_t> shimmed() const {
    const Design& d = document_.design();
    if (d.gear.has_third()) return line_of(d, row_of(d.gear, d.gear.third().id));
    std::vector<size_t> front;
    double least = std::numeric_limits<double>::infinity();
    for (const auto& line : leg_lines(d)) {
      const Leg& leg = d.gear.legs[line.rows[0]];
      if (leg.role != LegRole::main || !(leg.axle.x < least)) continue;
      least = leg.axle.x;
      front = line.rows;
    }
    return front;
  }
  QLineEdit* wanted_;
  QLabel* answer_;
  QPushButton* apply_;
  std::optional<double> shim_;
  QVBoxLayout* ways_ = nullptr;
  QLabel* ways_note_ = nullptr;
  Background ways_work_;
  QCheckBox* unlinked_ = nullptr;
  QTableWidget* sheet_ = nullptr;
  QLabel* sheet_note_ = nullptr;
  std::vector<TableLine> lines_;
  bool filling_ = false;
};

}  // namespace

StationPage* make_stance_page(Document& document) { return new StancePage(document); }

}  // namespace kranich::app
