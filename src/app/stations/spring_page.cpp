// SPDX-License-Identifier: GPL-3.0-or-later
//! Spring, in four views of one leg: its landing (stops, force, time, ladder, shelf), the bump, many landings
//! scattered, and the bench.
#include <QButtonGroup>
#include <QProgressBar>
#include <QStackedWidget>
#include <QTimer>
#include <algorithm>
#include <array>
#include <cmath>
#include <map>

#include "app/document/when_seen.h"
#include "app/drawing/bump_pane.h"
#include "app/drawing/landing_panes.h"
#include "app/stations/page.h"
#include "app/stations/spring_bench.h"
#include "app/stations/spring_shelf.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/leg_switch.h"
#include "app/widgets/list_table.h"
#include "core/assess/landing_state.h"
#include "core/assess/loading_state.h"
#include "core/assess/settle.h"
#include "core/assess/standing.h"
#include "core/force/materials.h"

namespace kranich::app {
namespace {

enum class View { landing, bump, scatter, bench };

class SpringPage : public StationPage {
 public:
  explicit SpringPage(Document& document)
      : StationPage(document, Station::spring), trace_(document), bumps_(document) {
    build_panes();
    build_switches();
    landing_ = section([this] { build_landing(); });
    bump_ = section([this] { build_bump(); });
    scatter_ = section([this] { build_scatter(); });
    for (const Leg& leg : document_.design().gear.legs) build_spring(leg.id);
    add_findings(tr("What it does"));
    finish();
    below_ = new QStackedWidget(this);
    shelf_ = new ShelfPanel(document, below_);
    bench_ = new BenchPanel(document, *rig_, below_);
    below_->addWidget(shelf_);
    below_->addWidget(bench_);
    put_below(below_, 176);
    connect(shelf_, &ShelfPanel::compared_changed, this, [this] { lay_beside(); });
    connect(bench_, &BenchPanel::redraw, this, [this] { board()->update(); });
    play_.setInterval(33);
    connect(&play_, &QTimer::timeout, this, [this] { play_on(); });
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed, &Document::view_changed);
    show_leg(LegSwitch::first(document_.design()));
    show_view(View::landing);
  }

 private:
  void build_panes() {
    const auto add = [&](auto pane) {
      auto* p = pane.get();
      board()->add(std::move(pane), {});
      return p;
    };
    stroke_ = add(std::make_unique<StrokePane>(document_));
    force_ = add(std::make_unique<ForcePane>(document_, trace_));
    time_ = add(std::make_unique<TimePane>(document_, trace_));
    rolling_ = add(std::make_unique<BumpPane>(document_, bumps_));
    loads_ = add(std::make_unique<BumpLoadsPane>(document_, bumps_));
    many_ = add(std::make_unique<ScatterPane>(document_));
    rig_ = add(std::make_unique<RigPane>(document_));
  }

  void build_switches() {
    const auto row = [&](std::initializer_list<std::pair<QString, QString>> buttons, auto&& chosen) {
      auto* which = new QWidget(this);
      auto* line = new QHBoxLayout(which);
      line->setContentsMargins(0, 0, 0, 0);
      line->setSpacing(3);
      auto* group = new QButtonGroup(this);
      int id = 0;
      for (const auto& [name, text] : buttons) {
        auto* b = new QPushButton(text, which);
        b->setCheckable(true);
        b->setObjectName(name);
        group->addButton(b, id++);
        line->addWidget(b);
      }
      put(which);
      group->button(0)->setChecked(true);
      connect(group, &QButtonGroup::idClicked, this, chosen);
    };
    switch_ = put(new LegSwitch(document_, "spring", this));
    connect(switch_, &LegSwitch::chosen, this, [this](const QString& id) { show_leg(id.toStdString()); });
    row({{"view-landing", tr("Landing")},
         {"view-bump", tr("Bump")},
         {"view-scatter", tr("Many")},
         {"view-bench", tr("Bench")}},
        [this](int id) { show_view(static_cast<View>(id)); });
  }

  void build_landing() {
    heading(tr("Design landing"), tr("three schools"));
    choice("/landing/school", tr("Taken"));
    put(new TextRow(document_, "/landing/reason", tr("Why this one"), this));
    schools_ = remark();
    schools_->setObjectName("schools");
    field("/landing/ladder_height_m", tr("Drop height chosen"));
    field("/landing/prototype_sink_speed_m_per_s");
    field("/purpose/scale_denominator");
    field("/landing/lift_ratio", tr("Lift over weight, K"));
    field("/landing/ground_load_factor", tr("Ground load factor aimed at, N"));
    field("/landing/tyre_efficiency", tr("Tyre efficiency"));
    auto* play = button(tr("Play the landing"), tr("Ten times slower than it is"));
    play->setObjectName("play-landing");
    connect(play, &QPushButton::clicked, this, [this] { start_playing(); });
    ladder_ = remark();
    ladder_->setObjectName("ladder");
  }

  void build_bump() {
    heading(tr("Bump or step"), tr("drag it in the drawing"));
    field("/bump/height_m");
    field("/bump/length_m");
    field("/bump/speed_m_per_s");
    field("/bump/bush_friction");
    auto* play = button(tr("Play it"), tr("Ten times slower than it is"));
    play->setObjectName("play-bump");
    connect(play, &QPushButton::clicked, this, [this] { start_playing(); });
    bump_says_ = remark();
    bump_says_->setObjectName("bump-says");
  }

  void build_scatter() {
    heading(tr("Many landings"), tr("standard deviations, normal"));
    for (const char* path : {"/scatter/sink_speed", "/scatter/mass", "/scatter/spring", "/scatter/friction",
                             "/scatter/damping", "/scatter/colder_K", "/scatter/hotter_K", "/scatter/drops"})
      field(path);
    run_ = button(tr("Try the drops"), tr("Simulates them on all cores; press again to call it off"));
    run_->setObjectName("run-scatter");
    connect(run_, &QPushButton::clicked, this,
            [this] { drops_.running() ? stop_scatter() : start_scatter(); });
    progress_ = put(new QProgressBar(this));
    progress_->setObjectName("scatter-progress");
    progress_->setRange(0, 1000);
    progress_->setTextVisible(false);
    progress_->setMaximumHeight(8);
    connect(&drops_, &Background::got_on, this,
            [this] { progress_->setValue(static_cast<int>(1000 * drops_.share())); });
    scatter_says_ = remark();
    scatter_says_->setObjectName("scatter-says");
  }

  void build_spring(const std::string& leg) {
    const QString base = leg_path(leg);
    LegPanel& of = panels_[leg];
    of.box = section([&] {
      const auto row = [&](const char* path) {
        put(new QuantityRow(document_, base + QString::fromLatin1(path), {}, this));
      };
      put(new ChoiceRow(document_, base + "spring/kind", tr("Spring"), this));
      of.travel = section([&] { row("travel_m"); });
      of.settled = remark();
      row("unsprung_mass_kg");
      static const std::vector<std::vector<const char*>> fields{
          {"spring/rate_N_per_m", "spring/preload_N"},
          {"spring/coil/wire_diameter_m", "spring/coil/mean_diameter_m", "spring/coil/active_turns",
           "spring/coil/total_turns", "spring/coil/free_length_m", "spring/coil/installed_length_m",
           "spring/coil/count", "spring/coil/motion_ratio"},
          {"spring/gas/piston_area_m2", "spring/gas/volume_m3", "spring/gas/pressure_absolute_Pa",
           "spring/gas/exponent", "spring/gas/ambient_Pa"},
          {"spring/leaf/torsion_rate_N_m_per_rad"},
          {"spring/cord/strands", "spring/cord/free_length_m"},
          {"spring/gas_strut/extended_force_N", "spring/gas_strut/progression",
           "spring/gas_strut/full_stroke_m", "spring/gas_strut/count"},
          {"spring/pucks/count", "spring/pucks/outer_diameter_m", "spring/pucks/hole_diameter_m",
           "spring/pucks/thickness_m", "spring/pucks/shear_modulus_Pa", "spring/pucks/hardness_factor",
           "spring/pucks/assembled_length_m"},
          {"spring/bent/wire_diameter_m", "spring/bent/plies", "spring/bent/ply_areal_weight_kg_per_m2",
           "spring/bent/fibre_fraction", "spring/bent/measured_rate_N_per_m", "spring/bent/mount_bore_m",
           "spring/bent/cross_wire_rate_N_per_m", "spring/bent/cross_wire/diameter_m",
           "spring/bent/cross_wire/rise_m", "spring/bent/cross_wire/along_m"}};
      for (size_t k = 0; k < fields.size(); ++k)
        of.parts[k] = section([&] {
          if (static_cast<SpringKind>(k) == SpringKind::bending)
            choice_at_leg(base, "spring/bent/form", tr("Made as"));
          for (const char* p : fields[k]) row(p);
          if (static_cast<SpringKind>(k) == SpringKind::bending) {
            choice_at_leg(base, "spring/bent/section", tr("Section of leaf or bow"));
            put(new FlagRow(document_, base + "spring/bent/mount/through", tr("Its middle bends too"), this));
            for (const char* p : {"spring/bent/mount/rings", "spring/bent/mount/ring_outer_m",
                                  "spring/bent/mount/ring_hole_m", "spring/bent/mount/ring_thickness_m",
                                  "spring/bent/mount/ring_pitch_m", "spring/bent/mount/ring_modulus_Pa",
                                  "spring/bent/mount/slot_m", "spring/bent/mount/gap_above_m",
                                  "spring/bent/mount/gap_below_m"})
              row(p);
          }
          if (static_cast<SpringKind>(k) != SpringKind::coil) return;
          choice_at_leg(base, "spring/coil/ends", tr("Ends"));
          put(new TextRow(document_, base + "spring/coil/wire", tr("Wire of"), this));
          choice_at_leg(base, "spring/partner", tr("A second coil"));
          of.second = section([&] {
            for (const char* p :
                 {"spring/second/wire_diameter_m", "spring/second/mean_diameter_m",
                  "spring/second/active_turns", "spring/second/total_turns", "spring/second/free_length_m",
                  "spring/second/installed_length_m", "spring/second/count", "spring/second/motion_ratio",
                  "spring/second_starts_after_m"})
              row(p);
            choice_at_leg(base, "spring/second/ends", tr("Ends"));
            put(new TextRow(document_, base + "spring/second/wire", tr("Wire of"), this));
          });
        });
      for (const char* p : {"spring/oil_area_m2", "spring/orifice_closing_m2", "spring/orifice_extending_m2",
                            "spring/damping_closing_N_s_per_m", "spring/damping_extending_N_s_per_m",
                            "spring/friction_N", "spring/efficiency"})
        row(p);
      of.tubes = section([&] {
        put(new QLabel(tr("<b>Tubes of a strut that is made</b>"), this));
        for (const char* p :
             {"spring/telescope/outer_diameter_m", "spring/telescope/outer_wall_m",
              "spring/telescope/outer_length_m", "spring/telescope/inner_diameter_m",
              "spring/telescope/inner_wall_m", "spring/telescope/inner_length_m",
              "spring/telescope/plugged_m", "spring/telescope/thread_m", "spring/telescope/thread_depth_m"})
          row(p);
      });
    });
  }
  void choice_at_leg(const QString& base, const char* path, const QString& title) {
    put(new ChoiceRow(document_, base + QString::fromLatin1(path), title, this));
  }

  void show_leg(const std::string& leg) {
    leg_ = leg;
    switch_->show_current(leg);
    stroke_->leg = force_->leg = time_->leg = rolling_->leg = loads_->leg = leg;
    stop_playing();
    stop_scatter();
    many_->result.reset();
    for (const auto& [id, panel] : panels_) panel.box->setVisible(id == leg);
    shelf_->show_leg(leg);
    bench_->show_leg(leg);
    refresh();
    show_view(view_);
  }

  void show_view(View view) {
    view_ = view;
    stop_playing();
    landing_->setVisible(view == View::landing);
    bump_->setVisible(view == View::bump);
    scatter_->setVisible(view == View::scatter);
    const auto share = [&](Pane* pane, View of, const QRectF& where) {
      board()->set_share(pane, view == of ? where : QRectF());
    };
    share(stroke_, View::landing, {0, 0, 1, 0.46});
    share(force_, View::landing, {0.01, 0.46, 0.48, 0.53});
    share(time_, View::landing, {0.5, 0.46, 0.49, 0.53});
    share(rolling_, View::bump, {0, 0, 0.55, 1});
    share(loads_, View::bump, {0.56, 0.02, 0.43, 0.96});
    share(many_, View::scatter, {0.02, 0.02, 0.96, 0.96});
    share(rig_, View::bench, {0.02, 0.02, 0.96, 0.96});
    tell_bump();
    below_->setFixedHeight(view == View::bench ? 300 : 176);
    below_->setCurrentWidget(view == View::bench ? static_cast<QWidget*>(bench_) : shelf_);
    below_->setVisible(view == View::bench || (view == View::landing && shelf_->has_shelf()));
  }

  // --- playing, ten times slower than it is ---
  void start_playing() {
    played_ = 0;
    play_.start();
  }
  void stop_playing() {
    play_.stop();
    stroke_->playing.reset();
    time_->playing.reset();
    rolling_->playing.reset();
    loads_->playing.reset();
    board()->update();
  }
  void play_on() {
    played_ += 0.0033;
    if (view_ == View::bump) {
      const auto* pair = bumps_.of(leg_);
      if (!pair || pair->own.trace.empty() || played_ > pair->own.trace.back().t) return stop_playing();
      rolling_->playing = loads_->playing = played_;
      return board()->update();
    }
    const auto* drop = trace_.of(leg_);
    if (!drop || drop->trace.empty() || played_ > std::min(0.6, drop->trace.back().t)) return stop_playing();
    const auto at = std::lower_bound(drop->trace.begin(), drop->trace.end(), played_,
                                     [](const spring::DropPoint& p, double t) { return p.t < t; });
    stroke_->playing = at == drop->trace.end() ? drop->trace.back() : *at;
    time_->playing = played_;
    board()->update();
  }

  const LegLanding* landing() const {
    for (const auto& l : document_.assessment().landings)
      if (l.leg == leg_) return &l;
    return nullptr;
  }

  // --- many landings, in the background ---
  void start_scatter() {
    const auto* l = landing();
    if (!l || !l->model || !std::isfinite(l->sink_speed)) {
      scatter_says_->setText(tr("needs a landing of this leg: see the findings"));
      return;
    }
    run_->setText(tr("Call it off"));
    using Result = std::optional<spring::ScatterResult>;
    const double allowed = document_.design().landing.load_factor;
    drops_.start<Result>(
        [model = *l->model, speed = l->sink_speed, scatter = document_.design().scatter,
         allowed](const Progress& progress) {
          return spring::scattered_drops(model, speed, scatter, allowed, 1, progress);
        },
        [this, allowed](Result result) {
          run_->setText(tr("Try the drops"));
          progress_->setValue(1000);
          many_->result = std::move(result);
          many_->factor_allowed = allowed;
          many_->travel = document_.design().gear.leg(leg_).travel;
          tell_scatter();
          board()->update();
        });
  }
  void stop_scatter() {
    if (!drops_.running()) return;
    drops_.cancel();
    run_->setText(tr("Try the drops"));
    progress_->setValue(0);
    scatter_says_->setText(tr("called off"));
  }
  void tell_scatter() {
    const auto& r = *many_->result;
    using Result = spring::ScatterResult;
    scatter_says_->setText(tr("<b>%1 of %2 drops bottom, %3 go over the load factor.</b> Half stay below N "
                              "%4, 19 of 20 below %5, 99 of 100 below %6; stroke of 19 of 20 below %7.")
                               .arg(document_.say(r.bottoms, Kind::share))
                               .arg(r.stroke.size())
                               .arg(document_.say(r.over_factor, Kind::share))
                               .arg(figure(Result::below(r.load_factor, 0.5), 2))
                               .arg(figure(Result::below(r.load_factor, 0.95), 2))
                               .arg(figure(Result::below(r.load_factor, 0.99), 2))
                               .arg(document_.say(Result::below(r.stroke, 0.95), Kind::length)));
  }

  //! The chosen offers' landings, laid over this leg's own.
  void lay_beside() {
    force_->beside.clear();
    const auto* l = landing();
    if (l && l->model && document_.assessment().wheels && std::isfinite(l->sink_speed))
      for (const auto& o : shelf_->compared()) {
        const auto path = force::suspension_of(o.leg, document_.design().materials);
        if (!std::holds_alternative<force::Suspension>(path)) continue;
        stance::WheelOnLeg wheel = (*document_.assessment().wheels)[wheel_of(document_.design(), leg_)];
        wheel.leg = std::get<force::Suspension>(path);
        const auto model = drop_model(o.leg, wheel, l->model->mass(), l->model->lift_ratio);
        if (!std::holds_alternative<spring::DropModel>(model)) continue;
        spring::DropRun run;
        run.trace = 500;
        force_->beside.emplace_back(QString::fromStdString(o.name),
                                    spring::drop(std::get<spring::DropModel>(model), l->sink_speed, run));
      }
    board()->update();
  }

  //! Raises the height step by step: a bench drop, without lift.
  void tell_ladder() {
    const auto* l = landing();
    if (!l || !l->model || document_.before_drag() || !isVisible()) {
      if (!l || !l->model) ladder_->setText({});
      return;
    }
    // A leg that bends takes a set where its travel ends.
    const bool bends = document_.design().gear.leg(leg_).spring.kind == SpringKind::bending;
    const double yields_at = bends ? l->model->travel : std::numeric_limits<double>::infinity();
    const auto b = spring::bench_ladder(*l->model, document_.design().is_model(),
                                        document_.design().landing.load_factor, yields_at);
    const auto length = [&](double v) { return document_.say(v, Kind::length); };
    QString s = tr("<b>Drop ladder</b>, no lift, steps of %1: ").arg(length(b.step));
    s += bends ? QString()
         : b.ladder.first_that_bottoms
             ? tr("first bottoms at <b>%1</b> (just at %2)")
                   .arg(length(*b.ladder.first_that_bottoms), length(b.ladder.just_bottoms.value_or(0)))
             : tr("does not bottom up to %1").arg(length(b.top));
    if (bends)
      s += b.ladder.first_that_yields
               ? tr("takes a set from <b>%1</b>").arg(length(*b.ladder.first_that_yields))
               : tr("takes no set up to %1").arg(length(b.top));
    if (b.ladder.first_over_factor)
      s += tr("; over the load factor from %1").arg(length(*b.ladder.first_over_factor));
    s +=
        tr(". Remove people and propeller, guard the sides, catch the rebound, start low, inspect after "
           "every drop.");
    if (const auto* drop = trace_.of(leg_))
      s += tr("<br><b>After the landing</b> it comes back at %1%2%3.")
               .arg(document_.say(drop->rebound_speed, Kind::speed),
                    drop->hop_height > 1e-4 ? tr(", hops %1").arg(length(drop->hop_height))
                                            : tr(", the tyre stays down"),
                    std::isfinite(drop->settling_time)
                        ? tr(", at rest after %1").arg(document_.say(drop->settling_time, Kind::time))
                        : tr(", still rocking at the end"));
    ladder_->setText(s);
  }

  void tell_bump() {
    const auto* pair = view_ == View::bump && !document_.before_drag() ? bumps_.of(leg_) : nullptr;
    if (!pair) return;
    const bool straight = pair->model.leg.path == force::Suspension::Path::straight;
    const auto line = [&](const QString& who, const spring::BumpResult& r) {
      return tr("<b>%1</b>: up %2, aft %3, stroke %4, above %5%6<br>")
          .arg(who, document_.say(r.peak_vertical, Kind::force), document_.say(r.peak_aft, Kind::force),
               document_.say(r.stroke_used, Kind::length), document_.say(r.sprung_peak, Kind::in_g),
               r.bottoms ? tr(", bottoms") : QString());
    };
    const Leg& l = document_.design().gear.leg(leg_);
    const double reach = (l.held_at() - l.axle.vec()).norm();
    QString s = line(tr("This leg"), pair->own) +
                line(straight ? tr("As a trailing link") : tr("As a telescopic leg"), pair->other);
    if (straight && std::isfinite(reach))
      s += tr("The load aft bends a telescopic leg by %1 at its top, and sticks its bushes; on a trailing "
              "link it works in the travel.")
               .arg(document_.say(pair->own.peak_aft * reach, Kind::moment));
    bump_says_->setText(s);
  }
  void showEvent(QShowEvent* e) override {
    StationPage::showEvent(e);
    if (ladder_) tell_ladder();
  }

  void refresh() {
    if (!below_) return;
    const Design& d = document_.design();
    for (const auto& [id, panel] : panels_) {
      const Spring& s = d.gear.leg(id).spring;
      for (size_t k = 0; k < spring_names.size(); ++k)
        panel.parts[k]->setVisible(static_cast<size_t>(s.kind) == k);
      panel.second->setVisible(s.partner != CoilPartner::none);
      const bool bends = s.kind == SpringKind::bending;
      panel.travel->setVisible(!bends);
      panel.settled->setVisible(bends);
      const Leg& of = d.gear.leg(id);
      panel.tubes->setVisible(!bends && of.path == LegPath::straight && of.tubes.empty());
      if (bends && of.travel.known())
        panel.settled->setText(belly_ends_travel(d, of)
                                   ? tr("Travel <b>%1</b>: then the belly is on the ground")
                                         .arg(document_.say(of.travel, Kind::length))
                                   : tr("Travel <b>%1</b>: beyond it the leg takes a set")
                                         .arg(document_.say(of.travel, Kind::length)));
      else if (bends)
        panel.settled->setText(tr("Travel: follows from the leg's line, section and material"));
    }
    if (many_->result && !document_.before_drag()) {
      many_->result.reset();
      progress_->setValue(0);
      scatter_says_->setText(tr("the design has changed since"));
    }
    tell_ladder();
    tell_schools();
    tell_bump();
    lay_beside();
    below_->setVisible(view_ == View::bench || (view_ == View::landing && shelf_->has_shelf()));
  }

  //! What each school gives, side by side.
  void tell_schools() {
    const Design& d = document_.design();
    const auto* loading = document_.loading();
    QString s;
    for (const auto& [school, title] : {std::pair{School::rule, tr("by rule")},
                                        {School::ladder, tr("by drop ladder")},
                                        {School::similarity, tr("by similarity")}}) {
      const bool taken = d.landing.school == school;
      QString gives = tr("needs the mass");
      if (loading && loading->mass.known()) {
        const auto sink = sink_speed_by(school, d, loading->mass.down.mass);
        const auto* v = std::get_if<double>(&sink);
        gives = v ? tr("%1, a free drop of %2")
                        .arg(document_.say(*v, Kind::speed),
                             document_.say(spring::drop_of_sink_speed(*v), Kind::length))
                  : tr("needs %1").arg(text_of(std::get<Text>(sink), document_.units()));
      }
      s += QStringLiteral("%1%2: %3%4<br>")
               .arg(taken ? "<b>" : "", title, gives, taken ? tr(" – taken</b>") : QString());
    }
    schools_->setText(s);
  }

  std::string leg_;
  LegSwitch* switch_ = nullptr;
  View view_ = View::landing;
  StrokePane* stroke_;
  ForcePane* force_;
  TimePane* time_;
  BumpPane* rolling_;
  BumpLoadsPane* loads_;
  ScatterPane* many_;
  RigPane* rig_;
  LandingTrace trace_;
  BumpTrace bumps_;
  QTimer play_;
  double played_ = 0;
  QWidget *landing_ = nullptr, *bump_ = nullptr, *scatter_ = nullptr;
  QLabel *ladder_ = nullptr, *schools_ = nullptr, *bump_says_ = nullptr, *scatter_says_ = nullptr;
  QPushButton* run_ = nullptr;
  QProgressBar* progress_ = nullptr;
  Background drops_;
  QStackedWidget* below_ = nullptr;
  ShelfPanel* shelf_ = nullptr;
  BenchPanel* bench_ = nullptr;
  //! The entries of one leg: all of them, those of each kind of spring, those of a second coil.
  struct LegPanel {
    QWidget* box;
    std::array<QWidget*, spring_names.size()> parts;
    QWidget* second;
    QWidget* tubes;   //!< of a strut that slides
    QWidget* travel;  //!< its entry, and what stands there for a leg whose travel follows
    QLabel* settled;
  };
  std::map<std::string, LegPanel> panels_;
};

}  // namespace

StationPage* make_spring_page(Document& document) { return new SpringPage(document); }

}  // namespace kranich::app
