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

#include "app/drawing/diagram.h"
#include "app/drawing/panes.h"
#include "app/stations/page.h"
#include "app/theme.h"
#include "core/base/numerics.h"
#include "core/force/suspension.h"
#include "core/io/csv.h"
#include "core/spring/drop.h"
#include "core/spring/shelf.h"

namespace kranich::app {
namespace {

const Leg& leg_of(const Design& d, LegName leg) { return leg == LegName::main ? d.gear.main : d.gear.third; }

//! The leg large, at four places of its travel: extended, static, design landing, bottomed. A straight leg
//! from the side, a hinged one from ahead. While the landing is played the third place moves.
class StrokePane : public Pane {
 public:
  explicit StrokePane(Document& document) : Pane(document) {}
  LegName leg = LegName::main;
  std::optional<spring::DropPoint> playing;
  QString name() const override { return QObject::tr("Stroke"); }
  QMarginsF margins() const override { return {20, 40, 20, 44}; }
  QRectF bounds() const override {
    const Leg& l = leg_of(document_.design(), leg);
    if (!l.axle.known() || !l.wheel.diameter.known()) return {0, 0, 1, 1};
    const double height = top(l).z() - l.axle.z + l.wheel.diameter;
    return {-0.2 * height, 0, 4.2 * spacing(l) + 0.2 * height, height * 1.05};
  }
  void draw(Sheet& s) override {
    const Design& d = document_.design();
    const Leg& l = leg_of(d, leg);
    s.title(leg == LegName::main ? QObject::tr("Main leg")
                                 : QObject::tr("%1 leg").arg(QString::fromLatin1(d.third_word())),
            QObject::tr("to scale, the ground at rest"));
    if (!l.axle.known() || !l.wheel.diameter.known() || !l.travel.known()) return;
    const auto* loading = document_.loading();
    const size_t wheel = leg == LegName::main ? 2 : 0;
    const double still = loading && loading->rest ? loading->rest->wheels[wheel].leg_closure : 0;
    const double tyre = loading && loading->rest ? loading->rest->wheels[wheel].tyre_closure : 0;
    double landing = std::nan("");
    double landing_tyre = 1.5 * tyre;
    for (const auto& x : document_.assessment().landings) {
      if (x.leg != leg) continue;
      if (x.drop) {
        landing = x.drop->stroke_used;
        landing_tyre = std::min(x.drop->tyre_deflection, 0.9 * l.wheel.diameter / 2);
      } else if (x.stroke) {
        landing = x.stroke->strut_travel;
      }
    }
    if (playing) {
      landing = std::max(0.0, playing->stroke);
      landing_tyre = playing->unsprung;
    }
    s.ground(0);
    struct Column {
      QString name;
      double closure, sink;
      Ink ink;
    };
    const double most = l.travel;
    int i = 0;
    for (const Column& c : {Column{QObject::tr("extended"), 0, 0, Ink::grey},
                            Column{QObject::tr("static"), still, tyre, Ink::normal},
                            Column{playing ? QObject::tr("landing, %1 s").arg(playing->t, 0, 'f', 2)
                                           : QObject::tr("design landing"),
                                   landing, landing_tyre, landing > most ? Ink::fails : Ink::accent},
                            Column{QObject::tr("at the stop"), most, landing_tyre, Ink::tight}}) {
      const double x = (0.5 + i++) * spacing(l);
      if (!std::isfinite(c.closure)) continue;
      const auto path = force::suspension_of(l);
      const auto* suspension = std::get_if<force::Suspension>(&path);
      if (suspension && suspension->path == force::Suspension::Path::hinged)
        draw_hinged(s, l, *suspension, x, c.closure, c.sink, c.ink);
      else
        draw_straight(s, l, x, c.closure, c.sink, c.ink);
      s.label({x, 0}, c.name, c.ink, Qt::AlignHCenter | Qt::AlignTop, {0, 11}, 8.5, true);
      s.label({x, 0},
              QObject::tr("%1 of %2")
                  .arg(QString::fromStdString(format_number(c.closure, Kind::length, document_.units())),
                       QString::fromStdString(format_quantity(most, Kind::length, document_.units()))),
              Ink::grey, Qt::AlignHCenter | Qt::AlignTop, {0, 25}, 8);
    }
  }

 private:
  void draw_straight(Sheet& s, const Leg& l, double x, double closure, double sink, Ink ink) const {
    const Theme& t = Theme::now();
    const double radius = l.wheel.diameter / 2;
    const double axle = radius - sink;
    const double length = top(l).z() - l.axle.z - closure;
    const double tube = l.tube_diameter.known() ? l.tube_diameter.si : 0.05 * length;
    const double barrel = std::max(0.25 * length, 0.55 * (top(l).z() - l.axle.z));
    s.bar({x, axle}, {x, axle + length}, tube * 0.6, t.grey);
    s.bar({x, axle + length - std::min(barrel, length * 0.9)}, {x, axle + length}, tube,
          ink == Ink::fails ? t.fails : t.ink);
    s.pen(ink_colour(Ink::normal), 1.2);
    s.fill(t.tyre);
    const QPointF centre = s.frame().to_device({x, axle});
    const double r = radius * s.frame().scale();
    s.painter().save();
    s.painter().setClipRect(
        QRectF(centre.x() - r - 2, centre.y() - r - 2, 2 * r + 4, r + 2 + axle * s.frame().scale()));
    s.circle({x, axle}, radius);
    s.painter().restore();
    s.fill(t.rim);
    s.circle({x, axle}, radius * 0.4);
    s.pen(Ink::faint, 0.8, Qt::DashLine);
    s.line({x - 0.35 * spacing(l), axle + length}, {x + 0.35 * spacing(l), axle + length});
  }

  //! From ahead: the leg turned about its hinge, the cord or spring between its anchors, the wheel as it
  //! leans.
  void draw_hinged(Sheet& s, const Leg& l, const force::Suspension& path, double x, double rise, double sink,
                   Ink ink) const {
    const Theme& t = Theme::now();
    const auto q =
        find_root([&](double a) { return path.at(a).axle.z() - path.axle.z() - rise; }, 0, path.most * 1.4);
    const auto at = path.at(q.value_or(path.most));
    const bool sideways = l.path == LegPath::hinged_fore_and_aft;
    // It stands on the lowest edge of its leaning wheel.
    const double half_width = l.wheel.width.known() ? l.wheel.width / 2 : 0;
    const double lift = l.wheel.diameter / 2 * std::abs(at.wheel.y()) + half_width * std::abs(at.wheel.z()) - sink -
                        at.axle.z();
    const double across = sideways ? path.hinge.y() + 0.5 * (l.axle.y - path.hinge.y()) : path.hinge.x();
    const auto map = [&](const Vec3& p) {
      return QPointF(x + (sideways ? p.y() : p.x()) - across, p.z() + lift);
    };
    const Mat3 turn = turn_about(path.hinge_axis, q.value_or(path.most));
    const auto turned = [&](const Vec3& p) { return Vec3(path.hinge + turn * (p - path.hinge)); };
    const double tube = l.tube_diameter.known() ? l.tube_diameter.si : 0.03;
    s.bar(map(path.hinge), map(at.axle), tube, ink == Ink::fails ? t.fails : t.ink);
    if (path.acts == force::Suspension::Acts::pulled || path.acts == force::Suspension::Acts::pushed) {
      s.pen(Ink::accent, 2.2);
      s.line(map(path.anchor_airframe), map(turned(path.anchor_leg)));
      s.fill(t.accent);
      s.circle(map(path.anchor_airframe), 0.4 * tube);
    }
    const Vec3 side =
        (sideways ? l.wheel.width / 2 : 0.4 * l.wheel.diameter) * (sideways ? at.wheel : Vec3::UnitX());
    const Vec3 up = l.wheel.diameter / 2 * Vec3(0, -at.wheel.z(), at.wheel.y());
    s.pen(ink_colour(Ink::normal), 1.2);
    s.fill(t.tyre);
    s.polyline(QPolygonF({map(at.axle + side + up), map(at.axle - side + up), map(at.axle - side - up),
                          map(at.axle + side - up)}),
               true);
    s.fill(t.ink);
    s.circle(map(path.hinge), 0.5 * tube);
  }

  static Vec3 top(const Leg& l) {
    return l.retraction.fitted && l.retraction.pivot.known() ? l.retraction.pivot.vec()
           : l.top.known()                                   ? l.top.vec()
                                                             : l.axle.vec() + Vec3(0, 0, 3 * l.travel);
  }
  static double spacing(const Leg& l) {
    return std::max(1.35 * l.wheel.diameter, 0.7 * (top(l).z() - l.axle.z));
  }
};

//! The design landing of a leg with its trace: computed anew when the design changes.
class LandingTrace {
 public:
  explicit LandingTrace(Document& document) : document_(document) {}
  const spring::DropResult* of(LegName leg) {
    if (seen_ != document_.revision() || leg != leg_) {
      seen_ = document_.revision();
      leg_ = leg;
      result_.reset();
      for (const auto& l : document_.assessment().landings)
        if (l.leg == leg && l.model && std::isfinite(l.sink_speed)) {
          spring::DropRun run;
          run.trace = 600;
          result_ = spring::drop(*l.model, l.sink_speed, run);
        }
    }
    return result_ ? &*result_ : nullptr;
  }

 private:
  Document& document_;
  quint64 seen_ = 0;
  LegName leg_ = LegName::main;
  std::optional<spring::DropResult> result_;
};

//! Loads over time, and where the energy goes.
class TimePane : public Pane {
 public:
  TimePane(Document& document, LandingTrace& trace) : Pane(document), trace_(trace) {}
  LegName leg = LegName::main;
  std::optional<double> playing;
  QString name() const override { return QObject::tr("Landing"); }
  QRectF bounds() const override { return {}; }
  bool to_scale() const override { return false; }
  QMarginsF margins() const override { return {8, 6, 8, 6}; }
  void draw(Sheet& s) override {
    const QRectF area = s.frame().device();
    s.pen(Theme::now().line, 1);
    s.fill(Theme::now().card);
    s.painter().drawRoundedRect(area, 3, 3);
    const auto* drop = trace_.of(leg);
    if (!drop || drop->trace.empty()) {
      s.painter().setPen(Theme::now().grey);
      s.painter().drawText(area, Qt::AlignCenter | Qt::TextWordWrap,
                           leg == LegName::third && !document_.design().is_tricycle()
                               ? QObject::tr("a tail wheel is let down, not dropped")
                               : QObject::tr("the landing needs damping and unsprung mass"));
      return;
    }
    const QRectF upper(area.left(), area.top(), area.width(), 0.56 * area.height());
    const auto& unit = display_unit(Kind::force, document_.units());
    Diagram g;
    g.title = QObject::tr("The landing: ground load, and strut load (dashed), over time");
    g.x_title = QObject::tr("s");
    g.y_title = text_of(unit.symbol);
    g.y_factor = 1 / unit.to_si;
    for (const auto& p : drop->trace) {
      g.curve.push_back({p.t, p.ground});
      g.second.push_back({p.t, p.strut});
    }
    g.marks.push_back({{drop->time_to_peak, drop->peak_ground},
                       QObject::tr("N %1").arg(drop->load_factor, 0, 'f', 2),
                       Ink::accent});
    if (playing) g.marks.push_back({{*playing, 0}, QString(), Ink::accent, true});
    g.fit();
    g.draw(s, upper);
    draw_energy(s, *drop, QRectF(area.left(), upper.bottom(), area.width(), area.height() - upper.height()));
  }

 private:
  //! The energies stacked over time: what the landing brings at each moment is where the stack ends.
  void draw_energy(Sheet& s, const spring::DropResult& drop, const QRectF& area) const {
    const Theme& t = Theme::now();
    QPainter& p = s.painter();
    const QRectF box = area.adjusted(46, 20, -96, -18);
    double most = 1e-9;
    for (const auto& x : drop.trace)
      most = std::max(
          most, x.kinetic + x.damper_energy + std::max(0.0, x.spring_energy) + x.tyre_energy + x.stop_energy);
    const double end = drop.trace.back().t;
    const auto at = [&](double time, double joule) {
      return QPointF(box.left() + time / end * box.width(), box.bottom() - joule / most * box.height());
    };
    struct Layer {
      QString name;
      double (*of)(const spring::DropPoint&);
      QColor colour;
    };
    const auto shade = [&](QColor c, int alpha) {
      c.setAlpha(alpha);
      return c;
    };
    const std::vector<Layer> layers{
        {QObject::tr("damper"), [](const spring::DropPoint& x) { return x.damper_energy; },
         shade(t.ink, 150)},
        {QObject::tr("spring"), [](const spring::DropPoint& x) { return std::max(0.0, x.spring_energy); },
         shade(t.accent, 150)},
        {QObject::tr("stops"), [](const spring::DropPoint& x) { return x.stop_energy; }, shade(t.fails, 150)},
        {QObject::tr("tyre"), [](const spring::DropPoint& x) { return x.tyre_energy; }, shade(t.tight, 150)},
        {QObject::tr("motion"), [](const spring::DropPoint& x) { return x.kinetic; }, shade(t.grey, 80)}};
    std::vector<double> below(drop.trace.size(), 0);
    p.setFont(text_font(7.5));
    double label_y = box.bottom() - 4;
    for (const auto& layer : layers) {
      QPolygonF shape;
      for (size_t i = 0; i < drop.trace.size(); ++i)
        shape << at(drop.trace[i].t, below[i] + layer.of(drop.trace[i]));
      for (size_t i = drop.trace.size(); i-- > 0;) shape << at(drop.trace[i].t, below[i]);
      for (size_t i = 0; i < drop.trace.size(); ++i) below[i] += layer.of(drop.trace[i]);
      p.setPen(Qt::NoPen);
      p.setBrush(layer.colour);
      p.drawPolygon(shape);
      p.drawRect(QRectF(box.right() + 8, label_y - 8, 8, 8));
      p.setPen(t.ink);
      p.drawText(QPointF(box.right() + 20, label_y), layer.name);
      label_y -= 13;
    }
    p.setFont(text_font(8.5, true));
    p.drawText(
        QPointF(area.left() + 6, area.top() + 13),
        QObject::tr("Where the energy goes, stacked: %1 to be absorbed")
            .arg(QString::fromStdString(format_quantity(drop.energy, Kind::energy, document_.units()))));
  }
  LandingTrace& trace_;
};

//! Force at the wheel over the leg's closure.
class ForcePane : public Pane {
 public:
  ForcePane(Document& document, LandingTrace& trace) : Pane(document), trace_(trace) {}
  LegName leg = LegName::main;
  QString name() const override { return QObject::tr("Force"); }
  QRectF bounds() const override { return {}; }
  bool to_scale() const override { return false; }
  QMarginsF margins() const override { return {8, 6, 8, 6}; }
  void draw(Sheet& s) override {
    const QRectF area = s.frame().device();
    s.pen(Theme::now().line, 1);
    s.fill(Theme::now().card);
    s.painter().drawRoundedRect(area, 3, 3);
    const Leg& l = leg_of(document_.design(), leg);
    const auto law = force::suspension_of(l);
    const auto* ok = std::get_if<force::Suspension>(&law);
    if (!ok || ok->most <= 0) {
      s.painter().setPen(Theme::now().grey);
      s.painter().drawText(
          area, Qt::AlignCenter,
          ok ? QObject::tr("a rigid leg: the tyre is all there is")
             : QObject::tr("needs %1").arg(QString::fromStdString(std::get<std::string>(law))));
      return;
    }
    Diagram g;
    const auto& length = display_unit(Kind::length, document_.units());
    const auto& force_unit = display_unit(Kind::force, document_.units());
    g.title = QObject::tr("Force at the wheel over the travel; dashed: the landing's loop");
    g.x_title = QObject::tr("closure, %1").arg(QString::fromUtf8(length.symbol.data()));
    g.y_title = QString::fromUtf8(force_unit.symbol.data());
    g.x_factor = 1 / length.to_si;
    g.y_factor = 1 / force_unit.to_si;
    // A vertical force at the axle against its rise, whatever path the leg takes.
    const auto at_wheel = [&](double q) {
      const auto at = ok->at(q);
      return QPointF(at.axle.z() - ok->axle.z(), at.force / at.axle_1.z());
    };
    for (int i = 0; i <= 80; ++i) g.curve.push_back(at_wheel(ok->most * i / 80));
    const auto* loading = document_.loading();
    if (loading && loading->rest) {
      const auto& w = loading->rest->wheels[leg == LegName::main ? 2 : 0];
      g.marks.push_back(
          {at_wheel(w.coordinate),
           QObject::tr("static %1")
               .arg(QString::fromStdString(format_quantity(w.load, Kind::force, document_.units()))),
           Ink::accent});
    }
    if (const auto* drop = trace_.of(leg))
      for (const auto& p : drop->trace)
        if (p.stroke >= 0) g.second.push_back({p.stroke, p.strut});
    g.fit();
    for (const auto& x : document_.assessment().landings)
      if (x.leg == leg && !x.drop && x.stroke && x.stroke->strut_travel < 1.3 * l.travel) {
        g.x_high = std::max(g.x_high, x.stroke->strut_travel * 1.05);
        g.marks.push_back({{x.stroke->strut_travel, 0},
                           QObject::tr("landing needs %1")
                               .arg(QString::fromStdString(
                                   format_quantity(x.stroke->strut_travel, Kind::length, document_.units()))),
                           x.stroke->strut_travel > l.travel ? Ink::fails : Ink::tight,
                           true});
      }
    g.draw(s, area);
  }

 private:
  LandingTrace& trace_;
};

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
    spring::DropModel bench = *model;
    bench.lift_ratio = 0;
    const double step = document_.design().is_model() ? 0.05 : 0.1;
    const auto l = spring::drop_ladder(bench, step, step, 1.5, document_.design().landing.load_factor);
    const auto length = [&](double v) {
      return QString::fromStdString(format_quantity(v, Kind::length, document_.units()));
    };
    QString s = tr("<b>Drop ladder</b>, no lift, steps of %1: ").arg(length(step));
    s += l.first_that_bottoms ? tr("first bottoms at <b>%1</b> (just at %2)")
                                    .arg(length(*l.first_that_bottoms), length(l.just_bottoms.value_or(0)))
                              : tr("does not bottom up to %1").arg(length(1.5));
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
    const Leg& leg = leg_of(d, name);
    for (size_t l = 0; l < 2; ++l)
      for (size_t k = 0; k < 5; ++k)
        parts_[l][k]->setVisible(static_cast<size_t>((l == 0 ? d.gear.main : d.gear.third).spring.kind) == k);
    // What each school gives, side by side.
    const auto* loading = document_.loading();
    const auto speed = [&](double v) {
      return QString::fromStdString(format_quantity(v, Kind::speed, document_.units()));
    };
    const auto length = [&](double v) {
      return QString::fromStdString(format_quantity(v, Kind::length, document_.units()));
    };
    QString s;
    const auto panels = weigh::wing_panels(d.airframe.wing);
    const auto line = [&](School school, const QString& what, const QString& gives) {
      const bool taken = d.landing.school == school;
      s += QStringLiteral("%1%2: %3%4<br>")
               .arg(taken ? "<b>" : "", what, gives, taken ? tr(" – taken</b>") : QString());
    };
    if (loading && loading->mass.known() && !panels.empty()) {
      const auto r =
          spring::landing_by_rule(loading->mass.down.mass, weigh::mean_aerodynamic_chord(0, panels).area);
      line(School::rule, tr("by rule"),
           tr("%1, free drop %2").arg(speed(r.sink_speed), length(r.drop_height)));
    } else {
      line(School::rule, tr("by rule"), tr("needs mass and wing"));
    }
    line(School::ladder, tr("by drop ladder"),
         d.landing.ladder_height.known()
             ? tr("%1 from %2")
                   .arg(speed(spring::sink_speed_of_drop(d.landing.ladder_height)),
                        length(d.landing.ladder_height))
             : tr("needs a drop height (100–150 mm light, 250 mm and more heavy models)"));
    line(School::similarity, tr("by similarity"),
         d.landing.prototype_sink_speed.known() && d.purpose.scale_denominator.known()
             ? tr("%1 at 1:%2")
                   .arg(speed(
                       spring::froude(d.purpose.scale_denominator, d.landing.prototype_sink_speed, 0, 0, 0, 0)
                           .sink_speed))
                   .arg(d.purpose.scale_denominator.si)
             : tr("needs the prototype's sink speed and the scale"));
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
        coils, {leg.travel, loading->rest->wheels[stroke_->leg == LegName::main ? 2 : 0].load,
                leg.spring.coil.motion_ratio, leg.spring.coil.count, leg.spring.coil.installed_length});
    shelf_note_->setText(
        tr("<b>Shelf</b> &nbsp; coil springs for %1 of travel in %2 of room, best first; double-click fits "
           "one")
            .arg(QString::fromStdString(format_quantity(leg.travel, Kind::length, document_.units())),
                 QString::fromStdString(
                     format_quantity(leg.spring.coil.installed_length, Kind::length, document_.units()))));
    const auto unit = [&](Kind k) { return text_of(display_unit(k, document_.units()).symbol); };
    shelf_table_->setHorizontalHeaderLabels(
        {tr("Spring"), tr("Wire × coil, %1").arg(unit(Kind::length)), tr("Free, %1").arg(unit(Kind::length)),
         tr("At the wheel, %1").arg(unit(Kind::stiffness)), tr("Preload, %1").arg(unit(Kind::force)),
         tr("Sag"), tr("Stress left"), tr("Objection")});
    shelf_table_->setRowCount(static_cast<int>(ranked_.size()));
    for (int r = 0; r < shelf_table_->rowCount(); ++r) {
      const auto& c = ranked_[static_cast<size_t>(r)];
      const auto& item = shelf_[c.index];
      const auto say = [&](double v, Kind k) {
        return QString::fromStdString(format_number(v, k, document_.units()));
      };
      const QStringList cells{
          QString::fromStdString(item.name),
          say(item.coil.wire_diameter, Kind::length) + " × " + say(item.coil.mean_diameter, Kind::length),
          say(item.coil.free_length, Kind::length),
          say(c.rate, Kind::stiffness),
          say(c.preload, Kind::force),
          QString::fromStdString(format_quantity(c.sag, Kind::share, document_.units())),
          QString::fromStdString(format_quantity(c.margin, Kind::share, document_.units())),
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
      Coil& c = (stroke_->leg == LegName::main ? d.gear.main : d.gear.third).spring.coil;
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
