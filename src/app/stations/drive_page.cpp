// SPDX-License-Identifier: GPL-3.0-or-later
//! Drive: what moves a leg, what it works against, what holds it at both ends.
#include <QComboBox>
#include <map>

#include "app/document/when_seen.h"
#include "app/drawing/drive_pane.h"
#include "app/stations/page.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/findings.h"
#include "app/widgets/leg_switch.h"
#include "app/widgets/list_table.h"
#include "app/widgets/servo_link.h"
#include "core/assess/drive_state.h"

namespace kranich::app {
namespace {

class DrivePage : public StationPage {
 public:
  explicit DrivePage(Document& document) : StationPage(document, Station::drive) {
    auto pane = std::make_unique<DrivePane>(document);
    pane_ = pane.get();
    board()->add(std::move(pane), {0, 0, 1, 0.56});
    auto torque = std::make_unique<TorquePane>(document);
    torque_ = torque.get();
    board()->add(std::move(torque), {0.01, 0.57, 0.48, 0.42});
    auto force = std::make_unique<DriveForcePane>(document);
    force_ = force.get();
    board()->add(std::move(force), {0.51, 0.57, 0.48, 0.42});
    switch_ = put(new LegSwitch(document_, "drive", this));
    for (const Leg& leg : document_.design().gear.legs) build_leg(leg.id);
    none_ = remark();
    none_->setText(tr("This leg does not retract: nothing moves it."));
    add_findings(tr("What it comes to"));
    finish();
    connect(switch_, &LegSwitch::chosen, this, [this](const QString& id) { show_leg(id.toStdString()); });
    connect(findings(), &FindingList::chosen_changed, this, [this] {
      if (const Finding* f = findings()->chosen_finding(); f && !f->subject.leg.empty())
        show_leg(f->subject.leg);
    });
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed, &Document::view_changed);
    std::string first = LegSwitch::first(document_.design());
    for (const Leg& leg : document_.design().gear.legs)
      if (leg.retraction.fitted) {
        first = leg.id;
        break;
      }
    show_leg(first);
  }

 private:
  struct Panel {
    QWidget* box;
    std::map<DriveKind, QWidget*> kinds;
    QWidget* ends;
    QLabel* anchors;  //!< what the map of its ends lacks
    QLabel* down;
    QLabel* taken;  //!< what is taken from elsewhere where nothing is entered
  };

  void build_leg(const std::string& id) {
    const QString base = leg_path(id) + "retraction/";
    Panel& panel = panels_[id];
    panel.box = section([&] {
      const auto row = [&](const char* path) {
        put(new QuantityRow(document_, base + QString::fromLatin1(path), {}, this));
      };
      const auto place = [&](const char* path, const QString& what) {
        for (const auto& [key, word] : {std::pair{"x_m", tr("station")}, std::pair{"y_m", tr("side")},
                                        std::pair{"z_m", tr("waterline")}})
          put(new QuantityRow(document_, base + QString::fromLatin1(path) + "/" + QString::fromLatin1(key),
                              QStringLiteral("%1, %2").arg(what, word), this));
      };
      const auto title = [&](const QString& text) {
        put(new QLabel(QStringLiteral("<b>%1</b>").arg(text), this));
      };
      put(new ChoiceRow(document_, base + "drive/kind", tr("Moved by"), this));
      fold(tr("As it is sold"), tr("name, mass, price, body, pins"), [&] {
        put(new TextRow(document_, base + "drive_sold/name", tr("Drive"), this));
        for (const char* p :
             {"drive_sold/mass_kg", "drive_sold/price", "drive_sold/length_m", "drive_sold/width_m",
              "drive_sold/height_m", "drive_sold/pin_m", "drive_sold/hours", "drive_sold/current_A"})
          row(p);
        put(new ChoiceRow(document_, base + "drive_sold/locks", tr("Locks by itself"), this));
        put(new ChoiceRow(document_, base + "drive_sold/powerless", tr("Without power the leg"), this));
      });
      auto* beside =
          button(tr("Drives side by side …"),
                 tr("What is fitted and up to six others: force in hand, time, mass, price, without power"));
      beside->setObjectName(QStringLiteral("drives-") + QString::fromStdString(id));
      connect(beside, &QPushButton::clicked, this,
              [this, id] { make_drive_dialog(document_, id, window())->show(); });
      panel.down = remark();
      panel.down->setText(tr("places on the leg as it stands down; the hook stowed"));
      panel.ends = section([&] {
        place("drive/on_airframe", tr("Airframe end"));
        place("drive/on_leg", tr("Leg end"));
        row("drive/stroke_m");
        auto* map = put(new QComboBox(this));
        map->setObjectName(QStringLiteral("anchors-") + QString::fromStdString(id));
        map->setAccessibleName(tr("Where an end may stand"));
        map->addItems({tr("where its ends may stand: not shown"), tr("where the airframe end may stand"),
                       tr("where the leg end may stand")});
        connect(map, &QComboBox::activated, this, [this](int index) {
          pane_->shown_end = index == 0   ? std::nullopt
                             : index == 1 ? std::optional(AnchorEnd::airframe)
                                          : std::optional(AnchorEnd::leg);
          refresh();
          board()->update();
        });
        panel.anchors = remark();
        panel.anchors->setObjectName(QStringLiteral("anchors-said-") + QString::fromStdString(id));
      });
      panel.kinds[DriveKind::actuator] = section([&] {
        for (const char* p : {"drive/force_N", "drive/speed_m_per_s"}) row(p);
      });
      panel.kinds[DriveKind::cylinder] = section([&] {
        for (const char* p :
             {"drive/bore_m", "drive/rod_m", "drive/supply_Pa", "drive/back_Pa", "drive/flow_m3_per_s"})
          row(p);
      });
      panel.kinds[DriveKind::air] = section([&] {
        for (const char* p : {"drive/bore_m", "drive/rod_m"}) row(p);
        put(new ChoiceRow(document_, base + "drive/air_acts", tr("Air moves it"), this));
        remark()->setText(
            tr("Bottle, valve and restrictors feed all legs: they stand in Circuit, under Air."));
      });
      panel.kinds[DriveKind::motor] = section([&] {
        for (const char* p :
             {"drive/stall_torque_N_m", "drive/no_load_speed_rad_per_s", "drive/no_load_current_A",
              "drive/stall_current_A", "drive/gearbox", "drive/pinion_radius_m", "drive/sector_radius_m",
              "drive/efficiency", "drive/rotor_inertia_kg_m2"})
          row(p);
      });
      panel.kinds[DriveKind::servo] = section([&] {
        for (const char* p :
             {"drive/stall_torque_N_m", "drive/no_load_current_A", "drive/stall_current_A", "drive/servo_x_m",
              "drive/servo_y_m", "drive/unit_arm_m", "drive/unit_down_deg", "drive/unit_stowed_deg",
              "drive/over_centre_deg", "drive/full_throw_deg", "drive/rod_stiffness_N_per_m",
              "drive/rod_diameter_m", "drive/rod_offset_m", "drive/ball_tilt_deg"})
          row(p);
        put(new ChoiceRow(document_, base + "drive/throws", tr("Servo throws, seen onto its output"), this));
        title(tr("On the servo tester"));
        put(new ServoLink(document_, id, this));
      });
      row("drive/wanted_time_s");
      title(tr("What it works against"));
      panel.taken = remark();
      row("drive/mass_kg");
      place("drive/cg", tr("Its CG"));
      for (const char* p : {"drive/inertia_kg_m2", "drive/load_factor", "drive/airspeed_m_per_s",
                            "drive/turning_area_m2", "drive/constant_area_m2"})
        row(p);
      place("drive/air_centre", tr("Air acts at"));
      for (const char* p : {"drive/friction_share", "drive/friction_constant_N_m"}) row(p);
      title(tr("Down-spring and falling free"));
      put(new FlagRow(document_, base + "drive/falls_free", tr("Must come down without power"), this));
      for (const char* p : {"drive/down_spring/extended_force_N", "drive/down_spring/progression",
                            "drive/down_spring/full_stroke_m", "drive/down_spring/extended_length_m"})
        row(p);
      place("drive/down_spring/on_airframe", tr("Spring on airframe"));
      place("drive/down_spring/on_leg", tr("Spring on leg"));
      row("drive/fluid_N_m_s2");
      title(tr("Held up, held down"));
      place("uplock/hook", tr("Hook"));
      put(new FlagRow(document_, base + "uplock/both_ends", tr("The same hook holds it down"), this));
      row("uplock/reach_m");
      for (const char* p : {"uplock/holds_N", "uplock/load_factor", "uplock/door_force_N",
                            "brace/at_airframe_m", "brace/at_leg_m", "brace/lock_spring_N_m"})
        row(p);
    });
  }

  void show_leg(const std::string& leg) {
    pane_->leg = torque_->leg = force_->leg = leg;
    switch_->show_current(leg);
    refresh();
    board()->set_share(pane_, {0, 0, 1, 0.56});
  }

  void refresh() {
    const Leg* leg = document_.design().gear.find(pane_->leg);
    const bool retracts = leg && leg->retraction.fitted;
    none_->setVisible(!retracts);
    for (const auto& [id, panel] : panels_) {
      panel.box->setVisible(id == pane_->leg && retracts);
      const Leg* of = document_.design().gear.find(id);
      if (!of) continue;
      const auto load = drive_load(document_.design(), *of);
      const auto* made = std::get_if<DriveLoad>(&load);
      panel.taken->setText(
          !made ? tr("needs %1").arg(text_of(std::get<Text>(load), document_.units()))
          : made->taken.empty()
              ? QString()
              : tr("taken where nothing is entered: %1").arg(text_of(made->taken, document_.units())));
      const DriveKind kind = of->retraction.drive.kind;
      for (const auto& [of_kind, box] : panel.kinds) box->setVisible(of_kind == kind);
      panel.ends->setVisible(is_strut(kind));
      if (id == pane_->leg) say_of_map(*panel.anchors);
    }
  }

  void say_of_map(QLabel& said) const {
    const AnchorMap* map = pane_->anchor_map();
    said.setText(
        !pane_->shown_end ? QString()
        : !map            ? tr("needs %1").arg(pane_->map_needs())
        : map->not_judged.empty()
            ? QString()
            : tr("not judged for want of a number: %1").arg(text_of(map->not_judged, document_.units())));
    said.setVisible(!said.text().isEmpty());
  }

  DrivePane* pane_;
  TorquePane* torque_;
  DriveForcePane* force_;
  LegSwitch* switch_;
  QLabel* none_;
  std::map<std::string, Panel> panels_;
};

}  // namespace

StationPage* make_drive_page(Document& document) { return new DrivePage(document); }

}  // namespace kranich::app
