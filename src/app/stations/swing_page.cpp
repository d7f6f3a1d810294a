// SPDX-License-Identifier: GPL-3.0-or-later
//! Swing: the leg on its way into the well, the axis that brings it there, what it cuts out.
#include <QHBoxLayout>
#include <QLineEdit>
#include <map>

#include "app/document/background.h"
#include "app/document/when_seen.h"
#include "app/drawing/axis_pane.h"
#include "app/drawing/swing_pane.h"
#include "app/stations/page.h"
#include "app/tongue.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/leg_switch.h"
#include "app/widgets/list_table.h"
#include "core/assess/swing_state.h"
#include "core/model/describe_words.h"
#include "core/model/moves.h"
#include "core/swing/axis_choices.h"
#include "core/swing/turn_rod.h"

namespace kranich::app {
namespace {

class SwingPage : public StationPage {
 public:
  explicit SwingPage(Document& document) : StationPage(document, Station::swing) {
    auto pane = std::make_unique<SwingPane>(document);
    pane_ = pane.get();
    board()->add(std::move(pane), whole);
    auto cut = std::make_unique<CutOutPane>(document, *pane_);
    cut_ = cut.get();
    board()->add(std::move(cut), beside);
    board()->add(std::make_unique<AxisPane>(document, *pane_), {0.69, 0.52, 0.31, 0.2});
    board()->add(std::make_unique<ClearancePane>(document, *pane_), {0.01, 0.72, 0.98, 0.27});
    switch_ = put(new LegSwitch(document_, "swing", this));
    auto* space = button(tr("Gear in space …"),
                         tr("Shaded, turned by hand, cut open, followed along its way (Ctrl+G)"));
    space->setObjectName("gear-in-space");
    connect(space, &QPushButton::clicked, this, [this] { make_shaded_dialog(document_, window())->show(); });
    for (const Leg& leg : document_.design().gear.legs) build_leg(leg.id);
    heading(tr("Leg length"), tr("pivot to axle"));
    budget_ = remark();
    budget_->setObjectName("length-budget");
    add_findings(tr("What it does"));
    finish();
    connect(switch_, &LegSwitch::chosen, this, [this](const QString& id) { show_leg(id.toStdString()); });
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed);
    connect(findings(), &FindingList::chosen_changed, this, [this] {
      if (const Finding* f = findings()->chosen_finding(); f && !f->subject.leg.empty())
        show_leg(f->subject.leg);
    });
    // The leg with the least to spare is shown first.
    const LegSwing* tightest = nullptr;
    const auto spare = [](const LegSwing& s) {
      return s.least ? s.least->distance - s.input->wanted_clearance : 1e9;
    };
    for (const auto& s : document_.assessment().swings)
      if (!tightest || spare(s) < spare(*tightest)) tightest = &s;
    show_leg(tightest ? tightest->leg : LegSwitch::first(document_.design()));
  }

 private:
  static constexpr QRectF whole{0, 0, 0.68, 0.72};
  static constexpr QRectF beside{0.69, 0, 0.31, 0.53};
  struct Panel {
    QWidget* box;
    QWidget* ratio;
    QWidget* rod;
    QWidget* carrier;
    QLabel* family;
    QWidget* axes;  //!< the axis finder's answers
    std::string told;
    QLineEdit *turn_wanted, *not_before;
    QWidget* rods;  //!< answers of the rod finder
  };

  void build_leg(const std::string& id) {
    Panel& panel = panels_[id];
    const QString base = leg_path(id);
    panel.box = section([&] {
      const auto row = [&](const char* path, const QString& title = {}) {
        put(new QuantityRow(document_, base + QString::fromLatin1(path), title, this));
      };
      const auto table = [&](const char* path, std::vector<Column> columns, int height) {
        auto* list = new ListTable(document_, base + QString::fromLatin1(path), std::move(columns), {}, this);
        list->setFixedHeight(height);
        put(list);
      };
      put(new ChoiceRow(document_, base + "retraction/direction", tr("Swings"), this));
      row("retraction/pivot/x_m", tr("Pivot station"));
      row("retraction/pivot/y_m", tr("Pivot from the centre line"));
      row("retraction/pivot/z_m", tr("Pivot waterline"));
      row("retraction/unit_angle_deg", tr("Unit angle"));
      row("retraction/mount_tilt_deg", tr("Mount tilt"));
      row("retraction/axis_tip_deg", tr("Axis tipped, front or outer end up"));
      row("retraction/axis_yaw_deg", tr("Axis turned in plan"));
      row("wheel_offset_m", tr("Wheel outboard of the leg"));

      fold(tr("Well"), tr("clearance, growth, set, floor"), [&] {
        put(new TextRow(document_, base + "retraction/well/name", tr("Well"), this));
        row("retraction/well/clearance_m", tr("Clearance wanted"));
        row("retraction/well/low/x_m", tr("Well from station"));
        row("retraction/well/high/x_m", tr("to station"));
        row("retraction/well/low/y_m", tr("Well from, off the centre line"));
        row("retraction/well/high/y_m", tr("to, off the centre line"));
        row("retraction/well/low/z_m", tr("Well from waterline"));
        row("retraction/well/high/z_m", tr("to waterline"));
        row("retraction/tyre_growth_m", tr("Tyre growth"));
        row("retraction/side_play_m", tr("Side play"));
        row("retraction/service_set_m", tr("Axle set aft in service"));
        row("retraction/floor_m", tr("Floor that the leg passes"));
        row("retraction/far_skin_m", tr("Skin over the unit, its inside"));
      });
      fold(tr("Stowed as wanted"), tr("the axis that does it"), [&] {
        place(base + "retraction/wanted/centre", tr("Wheel's centre"));
        row("retraction/wanted/axle_up_deg", tr("Axle's outer end up (flat: 90°)"));
        row("retraction/wanted/axle_ahead_deg", tr("Axle's outer end ahead"));
        panel.family = remark();
        panel.axes = new QWidget(this);
        panel.axes->setObjectName(QStringLiteral("axes-%1").arg(QString::fromStdString(id)));
        panel.axes->setLayout(new QVBoxLayout);
        panel.axes->layout()->setContentsMargins(0, 0, 0, 0);
        put(panel.axes);
      });
      fold(tr("What the wheel does beside"), tr("twist, lift, bends"), [&] {
        put(new ChoiceRow(document_, base + "retraction/motion", tr("The wheel"), this));
        panel.ratio = section([&] { row("retraction/twist_deg", tr("Twists over the whole turn by")); });
        panel.rod = section([&] {
          place(base + "retraction/rod_airframe", tr("Rod's ball on the airframe"));
          place(base + "retraction/rod_leg", tr("Ball on leg or carrier"));
        });
        panel.carrier = section([&] {
          place(base + "retraction/king_pin", tr("King-pin"));
          build_rods(id, panel);
        });
        remark(tr("bends of the leg's line, from the pivot on: shank, first bend …"));
        table("retraction/bends", {{"at/x_m", "x"}, {"at/y_m", "y"}, {"at/z_m", "z"}}, 110);
        remark(tr("strut pulled in on the way: at a turn of, by"));
        table("retraction/pulled_in", {{"turn_deg", tr("Turn")}, {"stroke_m", tr("Pulled in")}}, 110);
      });
      fold(tr("Retract unit"), tr("shelf, rating, pin, holes"), [&] {
        put(new TextRow(document_, base + "retraction/unit/shelf_name", tr("Unit"), this));
        auto* shelf =
            button(tr("Units from the shelf …"), tr("What fits, carries, and what the next one costs"));
        shelf->setObjectName(QStringLiteral("units-%1").arg(QString::fromStdString(id)));
        connect(shelf, &QPushButton::clicked, this,
                [this, id] { make_unit_dialog(document_, id, window())->show(); });
        row("retraction/unit/rated_mass_kg", tr("Sold for aircraft of up to"));
        row("retraction/unit/rated_moment_N_m", tr("Moment its pin may carry"));
        row("retraction/unit/flex_N_m_per_rad", tr("Gives under a moment, unit alone"));
        row("retraction/unit/bore_m", tr("Bore for the leg's pin"));
        row("retraction/unit/leg_pin_m", tr("Leg's pin"));
        put(new TextRow(document_, base + "retraction/unit/label", tr("Written on it"), this));
        row("retraction/unit/measured_turn_deg", tr("Turn measured on it"));
        put(new FlagRow(document_, base + "retraction/unit/other_way",
                        tr("Runs the other way on the same signal"), this));
        remark(tr("mounting holes, from the pivot: aft, outboard, up"));
        table("retraction/unit/holes", {{"x_m", "x"}, {"y_m", "y"}, {"z_m", "z"}}, 130);
      });
      fold(tr("As built"), tr("stowed wheel behind the mouth"), [&] {
        row("retraction/seat_starboard_m", tr("Starboard, measured"));
        row("retraction/seat_port_m", tr("Port, measured"));
      });
    });
  }

  //! The rod for a turn that is wanted: asked here, entered by taking one of the answers.
  void build_rods(const std::string& id, Panel& panel) {
    auto* asks = put(new QWidget(this));
    auto* line = new QHBoxLayout(asks);
    line->setContentsMargins(0, 0, 0, 0);
    const auto entry = [&](const char* name, const QString& title, const QString& text) {
      auto* field = new QLineEdit(text, asks);
      field->setObjectName(
          QStringLiteral("%1-%2").arg(QString::fromLatin1(name), QString::fromStdString(id)));
      field->setAccessibleName(title);
      field->setFixedWidth(58);
      line->addWidget(new QLabel(title, asks));
      line->addWidget(field);
      return field;
    };
    panel.turn_wanted = entry("turn-wanted", tr("Turn wanted, °"), "90");
    panel.not_before = entry("not-before", tr("not before, °"), "30");
    auto* find = new QPushButton(tr("Find"), asks);
    find->setObjectName(QStringLiteral("find-rods-") + QString::fromStdString(id));
    line->addWidget(find);
    panel.rods = put(new QWidget(this));
    panel.rods->setLayout(new QVBoxLayout);
    panel.rods->layout()->setContentsMargins(0, 0, 0, 0);
    connect(find, &QPushButton::clicked, this, [this, id] { find_rods(id); });
  }
  void find_rods(const std::string& id) {
    Panel& panel = panels_[id];
    clear_layout(panel.rods->layout());
    const auto say_in = [&](const QString& text) {
      auto* words = new QLabel(text, panel.rods);
      words->setWordWrap(true);
      panel.rods->layout()->addWidget(words);
    };
    const auto angle_in = [&](QLineEdit* field) -> std::optional<double> {
      const auto parsed = parse_quantity(as_typed(field->text()), Kind::angle, document_.units());
      if (const auto* q = std::get_if<ParsedQuantity>(&parsed)) return q->si;
      say_in(tr("%1: %2").arg(field->accessibleName(),
                              QString::fromStdString(std::get<ParseError>(parsed).message).toHtmlEscaped()));
      return std::nullopt;
    };
    const auto turn = angle_in(panel.turn_wanted);
    const auto start = angle_in(panel.not_before);
    if (!turn || !start) return;
    const auto found = swing::rods_for_turn(document_.design().gear.leg(id), {*turn, *start}, 4);
    if (found.empty())
      say_in(tr(
          "No rod on such an arm does it without locking: place pivot, king-pin and the ball on the carrier "
          "first, or begin earlier."));
    const auto length = [&](double m) { return document_.say(m, Kind::length); };
    for (size_t i = 0; i < found.size(); ++i) {
      const auto& rod = found[i];
      say_in(tr("Rod %1 long, its arm %2: fixed at %3 / %4 / %5; turns %6 too early at most")
                 .arg(length(rod.length), length(rod.arm), length(rod.on_airframe.x()),
                      length(rod.on_airframe.y()), length(rod.on_airframe.z()),
                      document_.say(rod.too_early, Kind::angle)));
      auto* take = new QPushButton(tr("take this rod"), panel.rods);
      take->setObjectName(QStringLiteral("rod-%1-%2").arg(QString::fromStdString(id)).arg(i));
      connect(take, &QPushButton::clicked, this, [this, rod, id] {
        document_.edit(tr("Turning rod"), [&](Design& d) {
          for (const size_t r : line_of(d, row_of(d.gear, id)))
            if (d.gear.legs[r].retraction.fitted) swing::take_rod(d.gear.legs[r], rod);
        });
      });
      panel.rods->layout()->addWidget(take);
    }
  }

  void show_leg(const std::string& leg) {
    pane_->leg = leg;
    for (const auto& [id, panel] : panels_) panel.box->setVisible(id == leg);
    switch_->show_current(leg);
    refresh();
    board()->set_share(pane_, whole);
  }

  void refresh() {
    for (auto& [id, panel] : panels_) {
      const Leg* leg = document_.design().gear.find(id);
      if (!leg) continue;
      const LegMotion motion = leg->retraction.motion;
      panel.ratio->setVisible(motion == LegMotion::twists);
      panel.rod->setVisible(motion == LegMotion::rod_twists || motion == LegMotion::lifts_and_turns);
      panel.carrier->setVisible(motion == LegMotion::lifts_and_turns);
    }
    refresh_budget();
    if (document_.before_drag()) return;
    refresh_outlines();
    refresh_axes();
  }

  //! Beside the interface: uniting some hundred outlines takes longer than a frame.
  void refresh_outlines() {
    const Leg* leg = document_.design().gear.find(pane_->leg);
    if (!leg || cut_->is_of(*leg) || (outlines_.running() && wanted_ == *leg)) return;
    wanted_ = *leg;
    using Made = std::variant<swing::LegOutlines, Text>;
    outlines_.start<Made>([of = *leg](const Progress&) { return swing::outlines_of(of); },
                          [this, of = *leg](Made made) {
                            cut_->show_outlines(of, std::move(made));
                            board()->set_share(cut_, beside);
                          });
  }

  void refresh_axes() {
    const auto it = panels_.find(pane_->leg);
    const Leg* leg = document_.design().gear.find(pane_->leg);
    if (it == panels_.end() || !leg) return;
    Panel& panel = it->second;
    const auto wanted = wanted_pose(*leg);
    const auto found =
        wanted && leg->retraction.fitted ? swing::axis_choices(*leg, *wanted) : swing::AxisChoices{};
    panel.family->setVisible(!found.family.empty() || !wanted);
    panel.family->setText(
        wanted ? sentence_of(found.family, document_.units())
               : tr("say where the stowed wheel should lie, and how: every axis that brings it "
                    "there is found"));
    const auto angle = [&](double rad) { return document_.say(rad, Kind::angle); };
    const auto length = [&](double m) { return document_.say(m, Kind::length); };
    QStringList lines;
    for (const auto& c : found.list) {
      const QString sort = c.sort == swing::AxisSort::exact   ? tr("brings it there")
                           : c.sort == swing::AxisSort::plain ? tr("straight axis")
                                                              : tr("in the mount's plane");
      QString line = tr("<b>%1</b>, %2: unit of %3, axis turned %4, tipped %5, pivot %6 / %7 / %8")
                         .arg(sort, text_of(direction_names[static_cast<size_t>(c.entry.direction)]),
                              angle(c.unit_angle), angle(c.entry.yaw), angle(c.entry.tip),
                              length(c.pivot.x()), length(c.pivot.y()), length(c.pivot.z()));
      if (c.reversed) line += tr("; the wheel lies the other side up");
      if (c.sort == swing::AxisSort::exact)
        line += tr("; a millimetre off turns the axis %1").arg(angle(c.sensitivity));
      else
        line += tr("; misses by %1 and %2").arg(length(c.place_miss), angle(c.axle_miss));
      lines << line;
    }
    const std::string told = lines.join('\n').toStdString();
    if (told == panel.told) return;
    panel.told = told;
    clear_layout(panel.axes->layout());
    for (int i = 0; i < lines.size(); ++i) {
      auto* words = new QLabel(lines[i], panel.axes);
      words->setWordWrap(true);
      panel.axes->layout()->addWidget(words);
      auto* take = new QPushButton(tr("take this axis"), panel.axes);
      take->setObjectName(QStringLiteral("axis-%1-%2").arg(QString::fromStdString(pane_->leg)).arg(i));
      connect(take, &QPushButton::clicked, this,
              [this, c = found.list[static_cast<size_t>(i)], id = pane_->leg] {
                document_.edit(tr("Axis"), [&](Design& d) {
                  for (const size_t r : line_of(d, row_of(d.gear, id)))
                    if (d.gear.legs[r].retraction.fitted) swing::take_axis(d.gear.legs[r], c);
                });
              });
      panel.axes->layout()->addWidget(take);
    }
  }

  void refresh_budget() {
    const LegSwing* r = pane_->result();
    if (!r || !r->input) {
      budget_->setText(r ? tr("needs %1").arg(text_of(r->missing, document_.units()))
                         : tr("this leg does not retract"));
      return;
    }
    if (document_.before_drag() && !isVisible()) return;
    const auto b = swing::length_budget(*r->input);
    const auto say = [&](double v) { return document_.say(v, Kind::length); };
    QString s = tr("the stance wants <b>%1</b><br>").arg(say(b.length));
    if (!std::isfinite(b.fits))
      s += tr("no length near it keeps the clearance");
    else if (b.fits < b.length)
      s += tr("the well takes <b>%1</b><br>too long by <b>%2</b>").arg(say(b.fits), say(b.length - b.fits));
    else
      s += tr("the well takes up to <b>%1</b><br>spare <b>%2</b>").arg(say(b.fits), say(b.fits - b.length));
    if (document_.design().gear.leg(pane_->leg).retraction.motion != LegMotion::lifts_and_turns)
      s += tr("<br>lean when down %1, unit and mount make %2; the unit angle that fits both: %3")
               .arg(document_.say(r->figures->down_lean, Kind::angle),
                    document_.say(r->figures->unit_down_lean, Kind::angle),
                    document_.say(r->figures->required_angle, Kind::angle));
    budget_->setText(s);
  }

  SwingPane* pane_;
  CutOutPane* cut_;
  Background outlines_;
  Leg wanted_;
  LegSwitch* switch_;
  std::map<std::string, Panel> panels_;
  QLabel* budget_;
};

}  // namespace

StationPage* make_swing_page(Document& document) { return new SwingPage(document); }

}  // namespace kranich::app
