// SPDX-License-Identifier: GPL-3.0-or-later
//! Circuit: pump, pipes, cylinders; battery and leads.
#include <QButtonGroup>
#include <QElapsedTimer>
#include <QTimer>
#include <algorithm>

#include "app/document/when_seen.h"
#include "app/drawing/air_panes.h"
#include "app/stations/page.h"
#include "app/widgets/leg_switch.h"
#include "app/widgets/list_table.h"
#include "core/model/moves.h"

namespace kranich::app {
namespace {

class CircuitPage : public StationPage {
 public:
  explicit CircuitPage(Document& document) : StationPage(document, Station::circuit) {
    view_.leg = LegSwitch::first(document.design());
    board()->add(std::make_unique<CircuitPane>(document, view_), {0, 0, 1, 0.5});
    board()->add(std::make_unique<CylinderPane>(document, view_), {0, 0.51, 0.36, 0.49});
    board()->add(std::make_unique<LegsPane>(document, view_), {0.37, 0.51, 0.31, 0.49});
    board()->add(std::make_unique<CurrentPane>(document, view_), {0.69, 0.51, 0.31, 0.49});
    ways_ = one_of({{"circuit-up", tr("Up")}, {"circuit-down", tr("Down")}, {"circuit-dump", tr("Dump")}});
    play_ = button(tr("Play"), tr("Lets the legs run as they are computed"));
    play_->setObjectName("circuit-play");
    put(switch_ = new LegSwitch(document_, "circuit", this));
    add_findings(tr("What it does"));

    fold(tr("Pump"), tr("two points of its curve, its switch, its leak"), [&] {
      for (const char* key :
           {"pump_flow_m3_per_s", "loaded_flow_m3_per_s", "loaded_pressure_Pa", "pump_voltage_V",
            "down_speed", "cut_out_Pa", "cut_in_Pa", "relief_Pa", "rated_Pa"})
        hydraulic(key);
    });
    fold(tr("Throttles and legs"), tr("how it is slowed, how the legs share"), [&] {
      hydraulic("wanted_up_s");
      hydraulic("wanted_down_s");
      for (const char* way : {"up", "down"}) {
        const QString base = QStringLiteral("/circuit/hydraulics/%1/").arg(way);
        const QString title =
            way == std::string("up") ? tr("Throttled going up") : tr("Throttled going down");
        put(new ChoiceRow(document_, base + "at", title, this));
        for (const char* key : {"bore_m", "widest_m", "coefficient"})
          put(new QuantityRow(document_, base + key, {}, this));
      }
      put(new ChoiceRow(document_, "/circuit/hydraulics/split", tr("Legs share the flow by"), this));
      put(new FlagRow(document_, "/circuit/hydraulics/checks", tr("A check valve in each leg's branch"),
                      this));
      hydraulic("density_kg_per_m3");
    });
    fold(tr("Leak"), tr("on the bench, or noted in the cruise"), [&] {
      for (const char* key :
           {"trapped_volume_m3", "bulk_modulus_Pa", "test_fall_Pa", "test_time_s", "cycles_apart_s"})
        hydraulic(key);
    });
    fold(tr("Air"), tr("bottle, valve, restrictors, what is wanted of a filling"), [&] {
      for (const char* key : {"bottle_m3", "filled_Pa", "regulated_Pa", "rated_Pa", "wanted_cycles",
                              "valve_bore_m", "wanted_up_s", "up_bore_m", "wanted_down_s", "down_bore_m",
                              "coefficient", "test_fall_Pa", "test_time_s", "wait_s", "outside_Pa"})
        put(new QuantityRow(document_, QStringLiteral("/circuit/air/%1").arg(key), {}, this));
      list("/circuit/air/tubes",
           {{"name", tr("Tube")},
            {"leg", tr("Leg"), Refers::leg, true},
            {"side", tr("Side")},
            {"length_m", tr("Length")},
            {"bore_m", tr("Bore")}},
           [](Design& d) {
             auto& tubes = d.circuit.air.tubes;
             tubes.emplace_back();
             tubes.back().name = unused_name(tubes, "tube");
           });
    });
    fold(tr("Pipes and fittings"), tr("how air leaves, what passes the cockpit"), [&] {
      list("/circuit/hydraulics/pipes",
           {{"name", tr("Pipe")},
            {"leg", tr("Leg"), Refers::leg, true},
            {"side", tr("Side")},
            {"length_m", tr("Length")},
            {"bore_m", tr("Bore")},
            {"in_cabin", tr("Cockpit")}},
           [](Design& d) {
             auto& pipes = d.circuit.hydraulics.pipes;
             pipes.emplace_back();
             pipes.back().name = unused_name(pipes, "pipe");
           });
      list("/circuit/hydraulics/fittings",
           {{"name", tr("Fitting")},
            {"kind", tr("Is")},
            {"side", tr("Side")},
            {"branch", tr("Branch")},
            {"height_m", tr("Height")},
            {"in_cabin", tr("Cockpit")}},
           [](Design& d) {
             auto& fittings = d.circuit.hydraulics.fittings;
             fittings.emplace_back();
             fittings.back().name = unused_name(fittings, "fitting");
           });
    });
    fold(tr("Battery"), tr("what the supply gives"), [&] {
      for (const char* key :
           {"voltage_V", "lowest_voltage_V", "resistance_ohm", "supply_current_A", "standing_A"})
        put(new QuantityRow(document_, QStringLiteral("/circuit/electrics/%1").arg(key), {}, this));
    });
    fold(tr("Leads"), tr("what they feed, how long, how thick"), [&] {
      const auto add = [](Design& d) {
        auto& feeds = d.circuit.electrics.feeds;
        feeds.emplace_back();
        feeds.back().name = unused_name(feeds, "lead");
      };
      list("/circuit/electrics/feeds",
           {{"name", tr("Lead")},
            {"actor", tr("Feeds"), Refers::actor, true},
            {"running_A", tr("Runs")},
            {"stall_A", tr("Stalls")},
            {"inrush_A", tr("Starts")},
            {"inrush_time_s", tr("for")},
            {"voltage_needed_V", tr("Needs")},
            {"fuse_A", tr("Fuse")}},
           add);
      list("/circuit/electrics/feeds",
           {{"name", tr("Lead")},
            {"length_m", tr("Length")},
            {"section_m2", tr("Conductor")},
            {"connectors", tr("Connectors")},
            {"connector_resistance_ohm", tr("each")},
            {"extension_m", tr("Extension")},
            {"by_relay", tr("Relay")},
            {"reversed", tr("Reversed")},
            {"signal_lost", tr("No signal")}},
           add);
      list("/circuit/electrics/feeds",
           {{"name", tr("Lead")},
            {"diameter_m", tr("Cable")},
            {"channel_m", tr("Channel")},
            {"slack_m", tr("Slack")},
            {"slack_needed_m", tr("taken, as seen")}},
           add);
      list("/circuit/electrics/feeds",
           {{"name", tr("Lead")},
            {"clip_airframe/x_m", tr("Clip, x")},
            {"clip_airframe/y_m", tr("y")},
            {"clip_airframe/z_m", tr("z")},
            {"clip_leg/x_m", tr("on leg, x")},
            {"clip_leg/y_m", tr("y")},
            {"clip_leg/z_m", tr("z")}},
           add);
    });
    put(new ListTables(
        document_,
        [](const Design& d) {
          std::vector<ListTables::Each> ways;
          const auto& feeds = d.circuit.electrics.feeds;
          for (size_t i = 0; i < feeds.size(); ++i)
            ways.push_back({QStringLiteral("/circuit/electrics/feeds/%1/route").arg(i),
                            tr("Way of “%1”").arg(QString::fromStdString(feeds[i].name))});
          return ways;
        },
        {{"at/x_m", "x"}, {"at/y_m", "y"}, {"at/z_m", "z"}}, this));
    put(
        remark(tr("Bleed from the lowest branch up, branches of sensors hanging down; no fluid in the "
                  "cockpit: electric "
                  "gauges. Mark wiring channels on the lay-up drawing: what is laid over them is cut away "
                  "afterwards. Fluid "
                  "under pressure goes through skin: never feel for a leak by hand. A filled bottle moves "
                  "legs with the aircraft dead: empty it before working "
                  "in a bay. Legs crush: on jacks, "
                  "hands out, breaker "
                  "pulled.")));
    finish();
    connect(ways_, &QButtonGroup::idClicked, this, [this](int i) {
      view_.dumped = i == 2;
      if (i < 2) view_.up = i == 0;
      view_.time = 0;
      board()->update();
    });
    connect(switch_, &LegSwitch::chosen, this, [this](const QString& id) {
      view_.leg = id.toStdString();
      switch_->show_current(view_.leg);
      board()->update();
    });
    connect(play_, &QPushButton::clicked, this, [this] {
      if (ticker_.isActive() || length() == 0) {
        ticker_.stop();
      } else {
        if (view_.time >= length()) view_.time = 0;
        clock_.start();
        ticker_.start();
      }
      play_->setText(ticker_.isActive() ? tr("Pause") : tr("Play"));
    });
    ticker_.setInterval(30);
    connect(&ticker_, &QTimer::timeout, this, [this] {
      view_.time = std::min(view_.time + static_cast<double>(clock_.restart()) / 1000, length());
      if (view_.time >= length()) {
        ticker_.stop();
        play_->setText(tr("Play"));
      }
      board()->update();
    });
    connect(findings(), &FindingList::chosen_changed, this, [this] {
      const Finding* f = findings()->chosen_finding();
      if (!f) return;
      const std::string& key = f->subject.key;
      if (!f->subject.leg.empty()) view_.leg = f->subject.leg;
      if (key.ends_with("/up") || key.ends_with("/down")) view_.up = key.ends_with("/up");
      switch_->show_current(view_.leg);
      board()->update();
    });
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed);
    switch_->show_current(view_.leg);
    view_.time = 0.4 * length();
    refresh();
  }

 private:
  void hydraulic(const char* key) {
    put(new QuantityRow(document_, QStringLiteral("/circuit/hydraulics/%1").arg(key), {}, this));
  }
  void list(const char* path, std::vector<Column> columns, std::function<void(Design&)> add) {
    put(new ListTable(document_, path, std::move(columns), std::move(add), this));
  }
  double length() const { return shown_length(document_, view_); }
  void refresh() { ways_->button(2)->setVisible(!shown_air(document_)); }

  CircuitView view_;
  LegSwitch* switch_;
  QButtonGroup* ways_;
  QPushButton* play_;
  QTimer ticker_;
  QElapsedTimer clock_;
};

}  // namespace

StationPage* make_circuit_page(Document& document) { return new CircuitPage(document); }

}  // namespace kranich::app
