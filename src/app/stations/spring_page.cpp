// SPDX-License-Identifier: GPL-3.0-or-later
//! Spring: the leg at its stops, its force over its travel, the design landing by the three schools, the
//! shelf.
#include <QButtonGroup>
#include <QFile>
#include <QHeaderView>
#include <QTableWidget>
#include <cmath>

#include "app/drawing/diagram.h"
#include "app/drawing/panes.h"
#include "app/stations/page.h"
#include "app/theme.h"
#include "core/force/suspension.h"
#include "core/io/csv.h"
#include "core/spring/shelf.h"

namespace kranich::app {
namespace {

const Leg& leg_of(const Design& d, LegName leg) { return leg == LegName::main ? d.gear.main : d.gear.third; }

//! The leg large, at four places of its travel: extended, static, design landing, bottomed.
class StrokePane : public Pane {
 public:
  explicit StrokePane(Document& document) : Pane(document) {}
  LegName leg = LegName::main;
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
    const double still =
        loading && loading->rest ? loading->rest->wheels[leg == LegName::main ? 2 : 0].leg_closure : 0;
    const double tyre =
        loading && loading->rest ? loading->rest->wheels[leg == LegName::main ? 2 : 0].tyre_closure : 0;
    double needed = std::nan("");
    for (const auto& x : document_.assessment().landings)
      if (x.leg == leg && x.stroke) needed = x.stroke->strut_travel;
    s.ground(0);
    const Theme& t = Theme::now();
    struct Column {
      QString name;
      double closure, sink;
      Ink ink;
    };
    const double most = l.travel;
    int i = 0;
    for (const Column& c :
         {Column{QObject::tr("extended"), 0, 0, Ink::grey},
          Column{QObject::tr("static"), still, tyre, Ink::normal},
          Column{QObject::tr("landing needs"), needed, 1.5 * tyre, needed > most ? Ink::fails : Ink::accent},
          Column{QObject::tr("at the stop"), most, 1.5 * tyre, Ink::tight}}) {
      const double x = (0.5 + i++) * spacing(l);
      if (!std::isfinite(c.closure)) continue;
      const double radius = l.wheel.diameter / 2;
      const double axle = radius - c.sink;
      const double length = top(l).z() - l.axle.z - c.closure;
      const double tube = l.tube_diameter.known() ? l.tube_diameter.si : 0.05 * length;
      const double barrel = std::max(0.25 * length, 0.55 * (top(l).z() - l.axle.z));
      s.bar({x, axle}, {x, axle + length}, tube * 0.6, t.grey);
      s.bar({x, axle + length - std::min(barrel, length * 0.9)}, {x, axle + length}, tube,
            c.ink == Ink::fails ? t.fails : t.ink);
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
      s.label({x, 0}, c.name, c.ink, Qt::AlignHCenter | Qt::AlignTop, {0, 11}, 8.5, true);
      s.label({x, 0},
              QObject::tr("%1 of %2")
                  .arg(QString::fromStdString(format_number(c.closure, Kind::length, document_.units())),
                       QString::fromStdString(format_quantity(most, Kind::length, document_.units()))),
              Ink::grey, Qt::AlignHCenter | Qt::AlignTop, {0, 25}, 8);
      s.pen(Ink::faint, 0.8, Qt::DashLine);
      s.line({x - 0.35 * spacing(l), axle + length}, {x + 0.35 * spacing(l), axle + length});
    }
  }

 private:
  static Vec3 top(const Leg& l) {
    return l.retraction.fitted && l.retraction.pivot.known() ? l.retraction.pivot.vec()
           : l.top.known()                                   ? l.top.vec()
                                                             : l.axle.vec() + Vec3(0, 0, 3 * l.travel);
  }
  static double spacing(const Leg& l) {
    return std::max(1.35 * l.wheel.diameter, 0.7 * (top(l).z() - l.axle.z));
  }
};

//! Force at the wheel over the leg's closure.
class ForcePane : public Pane {
 public:
  explicit ForcePane(Document& document) : Pane(document) {}
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
    g.title = QObject::tr("Force at the wheel over the leg's travel");
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
    g.fit();
    for (const auto& x : document_.assessment().landings)
      if (x.leg == leg && x.stroke && x.stroke->strut_travel < 1.3 * l.travel) {
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
};

class SpringPage : public StationPage {
 public:
  explicit SpringPage(Document& document)
      : StationPage(document, Station::spring), shelf_table_(new QTableWidget(this)) {
    auto stroke = std::make_unique<StrokePane>(document);
    auto force = std::make_unique<ForcePane>(document);
    stroke_ = stroke.get();
    force_ = force.get();
    board()->add(std::move(stroke), {0, 0, 1, 0.6});
    board()->add(std::move(force), {0.01, 0.6, 0.98, 0.39});
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
      row("spring/efficiency", box);
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
    stroke_->leg = force_->leg = leg;
    for (const LegName l : {LegName::main, LegName::third})
      boxes_[static_cast<size_t>(l)]->setVisible(l == leg);
    refresh();
    board()->set_share(stroke_, {0, 0, 1, 0.6});
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

  void refresh() {
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
  QTableWidget* shelf_table_;
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
