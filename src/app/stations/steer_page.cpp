// SPDX-License-Identifier: GPL-3.0-or-later
//! Steer: how the aircraft turns on the ground, what the steering does while the leg folds, what stops it.
#include <map>

#include "app/document/when_seen.h"
#include "app/drawing/steer_panes.h"
#include "app/stations/page.h"
#include "app/widgets/leg_switch.h"
#include "app/widgets/list_table.h"

namespace kranich::app {
namespace {

class SteerPage : public StationPage {
 public:
  explicit SteerPage(Document& document) : StationPage(document, Station::steer) {
    auto pane = std::make_unique<SteerPane>(document);
    pane_ = pane.get();
    board()->add(std::move(pane), whole);
    board()->add(std::make_unique<TurnPane>(document, *pane_), {0.6, 0, 0.4, 1});
    switch_ = put(new LegSwitch(document_, "steer", this));
    for (const Leg& leg : document_.design().gear.legs) build_leg(leg.id);
    put(new FlagRow(document_, "/gear/wheel_brakes", tr("Wheel brakes on the mains"), this));
    add_findings(tr("What it does"));
    put(remark(tr(
        "Set collars with the gear down, brought just to the arm: two of them, and a dab of paint or "
        "adhesive "
        "that shows when one has moved. A hub is held by its axle's bolt or nut before the wheel turns.")));
    finish();
    connect(switch_, &LegSwitch::chosen, this, [this](const QString& id) { show_leg(id.toStdString()); });
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed);
    connect(findings(), &FindingList::chosen_changed, this, [this] {
      if (const Finding* f = findings()->chosen_finding(); f && !f->subject.leg.empty())
        show_leg(f->subject.leg);
    });
    const Gear& gear = document_.design().gear;
    std::string first = LegSwitch::first(document_.design());
    if (gear.has_third()) first = gear.third().id;
    for (const Leg& leg : gear.legs)
      if (leg.steering.kind != SteeringKind::none) {
        first = leg.id;
        break;
      }
    show_leg(first);
  }

 private:
  static constexpr QRectF whole{0, 0, 0.6, 1};
  struct Panel {
    QWidget *box, *turns, *rods, *slides;
  };

  void build_leg(const std::string& id) {
    Panel& panel = panels_[id];
    const QString base = leg_path(id) + "steering/";
    panel.box = section([&] {
      const auto row = [&](const char* path, const QString& title = {}) {
        put(new QuantityRow(document_, base + QString::fromLatin1(path), title, this));
      };
      put(new ChoiceRow(document_, base + "kind", tr("Steered"), this));
      panel.turns = section([&] {
        row("angle_deg");
        row("wanted_radius_m");
      });
      panel.rods = section([&] {
        place(base + "rod_airframe", tr("Rod's end at the servo"));
        place(base + "rod_leg", tr("In the arm on the leg, down"));
        row("servo_torque_N_m");
        row("servo_arm_m");
        put(new FlagRow(document_, base + "lets_go", tr("Centred and switched off before it goes up"), this));
      });
      panel.slides = section([&] { row("slide_m"); });
      fold(tr("Servo's body, axle off its line"), tr("room, trail"), [&] {
        place(base + "servo_low", tr("Servo's least corner"));
        place(base + "servo_high", tr("Greatest corner"));
        put(new QuantityRow(document_, leg_path(id) + "axle_aft_m", {}, this));
      });
      fold(tr("Bush"), tr("play of the leg that turns"), [&] {
        row("bush_play_m");
        row("bush_length_m");
      });
    });
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
      const SteeringKind kind = leg->steering.kind;
      panel.turns->setVisible(kind != SteeringKind::none);
      panel.rods->setVisible(kind == SteeringKind::rod || kind == SteeringKind::sliding_rods);
      panel.slides->setVisible(kind == SteeringKind::sliding_rods);
    }
  }

  SteerPane* pane_;
  LegSwitch* switch_;
  std::map<std::string, Panel> panels_;
};

}  // namespace

StationPage* make_steer_page(Document& document) { return new SteerPage(document); }

}  // namespace kranich::app
