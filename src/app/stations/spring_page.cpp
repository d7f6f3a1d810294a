// SPDX-License-Identifier: GPL-3.0-or-later
//! Spring: the leg at its stops, its force over its travel, the landing simulated and played, the three
//! schools of it, the ladder, the shelf.
#include <QButtonGroup>
#include <QFile>
#include <QHeaderView>
#include <QTableWidget>
#include <QTimer>
#include <algorithm>
#include <cmath>

#include "app/drawing/landing_panes.h"
#include "app/stations/page.h"
#include "app/theme.h"
#include "core/assess/standing.h"
#include "core/io/csv.h"
#include "core/spring/drop.h"
#include "core/spring/shelf.h"

namespace kranich::app {
namespace {

class SpringPage : public StationPage {
 public:
  explicit SpringPage(Document& document)
      : StationPage(document, Station::spring), shelf_table_(new QTableWidget(this)), trace_(document) {
    auto stroke = std::make_unique<StrokePane>(document);
    auto force = std::make_unique<ForcePane>(document, trace_);
    auto time = std::make_unique<TimePane>(document, trace_);
    stroke_ = stroke.get();
    force_ = force.get();
    time_ = time.get();
    board()->add(std::move(stroke), {0, 0, 1, 0.46});
    board()->add(std::move(force), {0.01, 0.46, 0.48, 0.53});
    board()->add(std::move(time), {0.5, 0.46, 0.49, 0.53});
    play_.setInterval(33);
    connect(&play_, &QTimer::timeout, this, [this] { play_on(); });
    QFile file(QStringLiteral(":/shelf/coil_springs.csv"));
    if (file.open(QIODevice::ReadOnly)) shelf_ = read_spring_shelf(file.readAll().toStdString()).springs;
    build_shelf();

    auto* which = new QWidget(this);
    auto* line = new QHBoxLayout(which);
    line->setContentsMargins(0, 0, 0, 0);
    auto* group = new QButtonGroup(this);
    for (const LegName leg : {LegName::main, LegName::third}) {
      auto* b = new QPushButton(leg == LegName::main              ? tr("Main legs")
                                : document.design().is_tricycle() ? tr("Nose leg")
                                                                  : tr("Tail leg"),
                                which);
      b->setCheckable(true);
      b->setObjectName(leg == LegName::main ? "spring-main" : "spring-third");
      group->addButton(b, static_cast<int>(leg));
      line->addWidget(b);
    }
    put(which);
    heading(tr("Design landing"), tr("three schools"));
    choice("/landing/school", tr("Taken"));
    schools_ = remark();
    schools_->setObjectName("schools");
    field("/landing/ladder_height_m", tr("Drop height chosen"));
    field("/landing/prototype_sink_speed_m_per_s");
    field("/purpose/scale_denominator");
    field("/landing/lift_ratio", tr("Lift over weight, K"));
    field("/landing/ground_load_factor", tr("Ground load factor aimed at, N"));
    auto* play = button(tr("Play the landing"), tr("Ten times slower than it is"));
    play->setObjectName("play-landing");
    connect(play, &QPushButton::clicked, this, [this] {
      played_ = 0;
      play_.start();
    });
    ladder_ = remark();
    ladder_->setObjectName("ladder");
    for (const LegName leg : {LegName::main, LegName::third}) {
      auto* box = new QWidget(this);
      auto* lay = new QVBoxLayout(box);
      lay->setContentsMargins(0, 6, 0, 0);
      lay->setSpacing(2);
      const QString base = leg == LegName::main ? "/gear/main/" : "/gear/third/";
      lay->addWidget(new ChoiceRow(document_, base + "spring/kind", tr("Spring"), box));
      const auto row = [&](const char* path, QWidget* into) {
        into->layout()->addWidget(new QuantityRow(document_, base + path, {}, into));
      };
      row("travel_m", box);
      row("unsprung_mass_kg", box);
      for (const SpringKind kind :
           {SpringKind::linear, SpringKind::coil, SpringKind::gas, SpringKind::leaf, SpringKind::cord}) {
        auto* part = new QWidget(box);
        auto* inner = new QVBoxLayout(part);
        inner->setContentsMargins(0, 0, 0, 0);
        inner->setSpacing(2);
        if (kind == SpringKind::linear)
          for (const char* p : {"spring/rate_N_per_m", "spring/preload_N"}) row(p, part);
        if (kind == SpringKind::coil)
          for (const char* p :
               {"spring/coil/wire_diameter_m", "spring/coil/mean_diameter_m", "spring/coil/active_turns",
                "spring/coil/total_turns", "spring/coil/free_length_m", "spring/coil/installed_length_m",
                "spring/coil/count", "spring/coil/motion_ratio"})
            row(p, part);
        if (kind == SpringKind::gas)
          for (const char* p : {"spring/gas/piston_area_m2", "spring/gas/volume_m3",
                                "spring/gas/pressure_absolute_Pa", "spring/gas/exponent"})
            row(p, part);
        if (kind == SpringKind::leaf) row("spring/leaf/torsion_rate_N_m_per_rad", part);
        if (kind == SpringKind::cord)
          for (const char* p : {"spring/cord/strands", "spring/cord/free_length_m"}) row(p, part);
        lay->addWidget(part);
        if (kind == SpringKind::cord) {
          for (const char* p :
               {"spring/oil_area_m2", "spring/orifice_closing_m2", "spring/orifice_extending_m2",
                "spring/damping_closing_N_s_per_m", "spring/damping_extending_N_s_per_m", "spring/friction_N",
                "spring/efficiency"})
            row(p, box);
        }
        parts_[static_cast<size_t>(leg)][static_cast<size_t>(kind)] = part;
      }
      put(box);
      boxes_[static_cast<size_t>(leg)] = box;
    }
    add_findings(tr("What it does"));
    finish();
    connect(group, &QButtonGroup::idClicked, this, [this](int id) { show_leg(static_cast<LegName>(id)); });
    connect(&document_, &Document::changed, this, &SpringPage::refresh);
    connect(&document_, &Document::view_changed, this, &SpringPage::refresh);
    group->button(0)->setChecked(true);
    show_leg(LegName::main);
  }

 private:
  void show_leg(LegName leg) {
    stroke_->leg = force_->leg = time_->leg = leg;
    stop_playing();
    for (const LegName l : {LegName::main, LegName::third})
      boxes_[static_cast<size_t>(l)]->setVisible(l == leg);
    refresh();
    board()->set_share(stroke_, {0, 0, 1, 0.46});
  }

  void stop_playing() {
    play_.stop();
    stroke_->playing.reset();
    time_->playing.reset();
    board()->update();
  }

  void play_on() {
    const auto* drop = trace_.of(stroke_->leg);
    played_ += 0.0033;
    if (!drop || drop->trace.empty() || played_ > std::min(0.6, drop->trace.back().t)) return stop_playing();
    const auto at = std::lower_bound(drop->trace.begin(), drop->trace.end(), played_,
                                     [](const spring::DropPoint& p, double t) { return p.t < t; });
    stroke_->playing = at == drop->trace.end() ? drop->trace.back() : *at;
    time_->playing = played_;
    board()->update();
  }

  //! Raises the height step by step: a bench drop, without lift.
  void tell_ladder() {
    const spring::DropModel* model = nullptr;
    for (const auto& l : document_.assessment().landings)
      if (l.leg == stroke_->leg && l.model) model = &*l.model;
    if (!model || document_.before_drag() || !isVisible()) {
      if (!model) ladder_->setText({});
      return;
    }
    const auto b =
        spring::bench_ladder(*model, document_.design().is_model(), document_.design().landing.load_factor);
    const auto& l = b.ladder;
    const auto length = [&](double v) { return document_.say(v, Kind::length); };
    QString s = tr("<b>Drop ladder</b>, no lift, steps of %1: ").arg(length(b.step));
    s += l.first_that_bottoms ? tr("first bottoms at <b>%1</b> (just at %2)")
                                    .arg(length(*l.first_that_bottoms), length(l.just_bottoms.value_or(0)))
                              : tr("does not bottom up to %1").arg(length(b.top));
    if (l.first_over_factor) s += tr("; over the load factor from %1").arg(length(*l.first_over_factor));
    s +=
        tr(". Remove people and propeller, guard the sides, catch the rebound, start low, inspect after "
           "every drop.");
    ladder_->setText(s);
  }

  void build_shelf() {
    auto* below = new QWidget(this);
    auto* all = new QVBoxLayout(below);
    all->setContentsMargins(10, 4, 10, 6);
    all->setSpacing(3);
    shelf_note_ = new QLabel(below);
    all->addWidget(shelf_note_);
    shelf_table_->setObjectName("shelf");
    shelf_table_->setAccessibleName(tr("Shelf of coil springs, best first"));
    shelf_table_->setColumnCount(8);
    shelf_table_->verticalHeader()->hide();
    shelf_table_->verticalHeader()->setDefaultSectionSize(22);
    shelf_table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    shelf_table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    shelf_table_->setToolTip(tr("Double-click to fit a spring; Ctrl+Z takes it out again"));
    all->addWidget(shelf_table_);
    below_ = below;
    put_below(below, 170);
    connect(shelf_table_, &QTableWidget::cellDoubleClicked, this, [this](int row, int) { fit_spring(row); });
    connect(shelf_table_, &QTableWidget::cellActivated, this, [this](int row, int) { fit_spring(row); });
  }

  void showEvent(QShowEvent* e) override {
    StationPage::showEvent(e);
    if (ladder_) tell_ladder();
  }

  void refresh() {
    if (ladder_) tell_ladder();
    const Design& d = document_.design();
    const LegName name = stroke_->leg;
    const Leg& leg = d.gear.leg(name);
    for (size_t l = 0; l < 2; ++l)
      for (size_t k = 0; k < 5; ++k)
        parts_[l][k]->setVisible(static_cast<size_t>((l == 0 ? d.gear.main : d.gear.third).spring.kind) == k);
    // What each school gives, side by side.
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
                  : tr("needs %1").arg(QString::fromStdString(std::get<std::string>(sink)));
      }
      s += QStringLiteral("%1%2: %3%4<br>")
               .arg(taken ? "<b>" : "", title, gives, taken ? tr(" – taken</b>") : QString());
    }
    if (!d.landing.reason.empty())
      s += tr("<i>why: %1</i>").arg(QString::fromStdString(d.landing.reason).toHtmlEscaped());
    schools_->setText(s);
    refresh_shelf(leg, loading);
  }

  void refresh_shelf(const Leg& leg, const LoadingState* loading) {
    const bool coil = leg.spring.kind == SpringKind::coil;
    below_->setVisible(coil);
    if (!coil) return;
    ranked_.clear();
    shelf_table_->setRowCount(0);
    if (!loading || !loading->rest || !leg.travel.known() || !leg.spring.coil.installed_length.known()) {
      shelf_note_->setText(
          tr("<b>Shelf</b> &nbsp; needs the aircraft at rest, the travel and the installed length"));
      return;
    }
    std::vector<Coil> coils;
    for (const auto& s : shelf_) coils.push_back(s.coil);
    ranked_ = spring::rank_springs(
        coils, {leg.travel, loading->rest->wheels[wheel_of(stroke_->leg)].load, leg.spring.coil.motion_ratio,
                leg.spring.coil.count, leg.spring.coil.installed_length});
    shelf_note_->setText(
        tr("<b>Shelf</b> &nbsp; coil springs for %1 of travel in %2 of room, best first; double-click fits "
           "one")
            .arg(document_.say(leg.travel, Kind::length),
                 document_.say(leg.spring.coil.installed_length, Kind::length)));
    shelf_table_->setHorizontalHeaderLabels(
        {tr("Spring"), tr("Wire × coil, %1").arg(document_.unit(Kind::length)),
         tr("Free, %1").arg(document_.unit(Kind::length)),
         tr("At the wheel, %1").arg(document_.unit(Kind::stiffness)),
         tr("Preload, %1").arg(document_.unit(Kind::force)), tr("Sag"), tr("Stress left"), tr("Objection")});
    shelf_table_->setRowCount(static_cast<int>(ranked_.size()));
    for (int r = 0; r < shelf_table_->rowCount(); ++r) {
      const auto& c = ranked_[static_cast<size_t>(r)];
      const auto& item = shelf_[c.index];
      const QStringList cells{QString::fromStdString(item.name),
                              document_.say_number(item.coil.wire_diameter, Kind::length) + " × " +
                                  document_.say_number(item.coil.mean_diameter, Kind::length),
                              document_.say_number(item.coil.free_length, Kind::length),
                              document_.say_number(c.rate, Kind::stiffness),
                              document_.say_number(c.preload, Kind::force),
                              document_.say(c.sag, Kind::share),
                              document_.say(c.margin, Kind::share),
                              c.objection.empty() ? tr("none") : QString::fromStdString(c.objection)};
      for (int k = 0; k < cells.size(); ++k) {
        auto* cell = new QTableWidgetItem(cells[k]);
        if (k > 0 && k < 7) cell->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
        if (!c.objection.empty()) cell->setForeground(Theme::now().grey);
        if (item.name == leg.spring.coil.shelf_name) {
          QFont f = cell->font();
          f.setBold(true);
          cell->setFont(f);
        }
        shelf_table_->setItem(r, k, cell);
      }
    }
    shelf_table_->resizeColumnsToContents();
    shelf_table_->horizontalHeader()->setStretchLastSection(true);
  }

  void fit_spring(int row) {
    if (row < 0 || row >= static_cast<int>(ranked_.size())) return;
    const Coil chosen = shelf_[ranked_[static_cast<size_t>(row)].index].coil;
    document_.edit(tr("Fit the spring %1").arg(QString::fromStdString(chosen.shelf_name)), [&](Design& d) {
      Coil& c = d.gear.leg(stroke_->leg).spring.coil;
      const Coil old = c;
      c = chosen;
      c.installed_length = old.installed_length;
      c.count = old.count;
      c.motion_ratio = old.motion_ratio;
      c.unknown_keys = old.unknown_keys;
    });
  }

  StrokePane* stroke_;
  ForcePane* force_;
  TimePane* time_;
  QTableWidget* shelf_table_;
  LandingTrace trace_;
  QTimer play_;
  double played_ = 0;
  QLabel* ladder_ = nullptr;
  QLabel* shelf_note_ = nullptr;
  QLabel* schools_ = nullptr;
  QWidget* below_ = nullptr;
  QWidget* boxes_[2];
  QWidget* parts_[2][5];
  std::vector<ShelfSpring> shelf_;
  std::vector<spring::Candidate> ranked_;
};

}  // namespace

StationPage* make_spring_page(Document& document) { return new SpringPage(document); }

}  // namespace kranich::app
