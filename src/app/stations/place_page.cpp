// SPDX-License-Identifier: GPL-3.0-or-later
//! Place: the wheels from the side, from ahead and from above, and the map of where they may stand; drag
//! them.
#include <QHBoxLayout>
#include <QLineEdit>
#include <cmath>
#include <functional>

#include "app/document/when_seen.h"
#include "app/drawing/map_pane.h"
#include "app/drawing/panes.h"
#include "app/stations/page.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/layout_row.h"
#include "core/assess/loading_state.h"
#include "core/model/moves.h"
#include "core/place/keepout.h"
#include "core/weigh/from_cg.h"

namespace kranich::app {
namespace {

//! Another way to say a number that the design holds in its own way: typed, it moves what it is about.
class OtherWayRow : public QWidget {
 public:
  struct Way {
    QString id, title, undo;
    std::function<double()> now;                   //!< m; NaN where it cannot be said
    std::function<double()> least;                 //!< not to be gone below
    std::function<QString(double)> too_little;     //!< why not
    std::function<void(Design&, double)> becomes;  //!< of what is typed
  };
  OtherWayRow(Document& document, Way way, QWidget* parent)
      : QWidget(parent), document_(document), way_(std::move(way)), field_(new QLineEdit(this)) {
    field_->setObjectName(way_.id);
    field_->setAccessibleName(way_.title);
    field_->setAlignment(Qt::AlignRight);
    field_->setFont(figure_font(9));
    field_->setFixedWidth(86);
    note_ = new QLabel(this);
    note_->setFont(text_font(8));
    note_->setWordWrap(true);
    note_->hide();
    auto* line = new QHBoxLayout;
    auto* label = new QLabel(way_.title, this);
    label->setWordWrap(true);
    line->addWidget(label, 1);
    line->addWidget(field_);
    unit_ = new QLabel(this);
    unit_->setFixedWidth(93);
    line->addWidget(unit_);
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(0, 1, 0, 1);
    all->addLayout(line);
    all->addWidget(note_);
    QObject::connect(field_, &QLineEdit::editingFinished, this, [this] { take_over(); });
    refresh_when_seen(
        this, &document_, [this] { show_value(); }, &Document::changed, &Document::view_changed);
    show_value();
  }

 private:
  void show_value() {
    const double v = way_.now();
    field_->setText(std::isfinite(v) ? document_.say_number(v, Kind::length) : QString());
    unit_->setText(document_.unit(Kind::length));
    setEnabled(std::isfinite(v));
  }
  void take_over() {
    const auto parsed = parse_quantity(as_typed(field_->text()), Kind::length, document_.units());
    const auto* q = std::get_if<ParsedQuantity>(&parsed);
    const double least = way_.least();
    note_->setVisible(!q || q->si <= least);
    if (!q || q->si <= least) {
      note_->setText(q ? way_.too_little(least)
                       : QString::fromStdString(std::get<ParseError>(parsed).message));
      return show_value();
    }
    if (std::abs(q->si - way_.now()) < 5e-5) return;
    document_.edit(way_.undo, [&](Design& d) { way_.becomes(d, q->si); });
  }
  Document& document_;
  Way way_;
  QLineEdit* field_;
  QLabel* unit_;
  QLabel* note_;
};

//! The plan's other way to say the track: overall width over the axle tips.
OtherWayRow::Way overall_width(Document& document) {
  const auto now = [&document] {
    const Leg& leg = document.design().gear.main();
    return 2 * (leg.axle.y + leg.axle_beyond_wheel);
  };
  return {"overall-width",
          QObject::tr("Width over the axle tips"),
          QObject::tr("Set the width over the axle tips"),
          now,
          [&document] { return 2 * document.design().gear.main().axle_beyond_wheel; },
          [&document](double least) {
            return QObject::tr("must be wider than the axles' own length, %1")
                .arg(document.say(least, Kind::length));
          },
          [now](Design& d, double v) { shift_mains(d, 0, (v - now()) / 2, 0); }};
}

//! A wheel from the CG, which is what is marked on the airframe, in the loading on screen. Moved with what
//! hangs on the legs, the CG goes along a little; that is reckoned in.
OtherWayRow::Way from_the_cg(Document& document, const std::string& id, const QString& word) {
  const auto now = [&document, id] {
    const auto* l = document.loading();
    const Leg& leg = document.design().gear.leg(id);
    return l && l->mass.known() ? leg.axle.x - l->mass.down.at.x() : std::nan("");
  };
  return {"from-cg-" + text_of(id),
          QObject::tr("Behind the CG"),
          QObject::tr("%1 from the CG").arg(capitalised(word)),
          now,
          [] { return -60.0; },
          [](double) { return QObject::tr("must lie within 60 m of the CG"); },
          [&document, id, now](Design& d, double v) {
            std::vector<size_t> rows;
            for (const auto& line : leg_lines(d))
              if (std::find(line.ids.begin(), line.ids.end(), id) != line.ids.end()) rows = line.rows;
            const double by = weigh::shift_from_cg(d, rows, document.loading()->mass.down.mass, v - now());
            if (std::isfinite(by)) shift_legs(d, rows, by, 0, 0);
          }};
}

class PlacePage : public StationPage {
 public:
  explicit PlacePage(Document& document) : StationPage(document, Station::place) {
    board()->add(std::make_unique<SidePane>(document, Overlay::place), {0, 0, 1, 0.5});
    board()->add(std::make_unique<FrontPane>(document), {0, 0.5, 0.27, 0.5});
    board()->add(std::make_unique<PlanPane>(document), {0.27, 0.5, 0.23, 0.5});
    board()->add(std::make_unique<MapPane>(document), {0.5, 0.5, 0.5, 0.5});
    for (const auto& leg : document_.design().gear.legs)
      if (leg.role == LegRole::main) build_wheel(leg);
    if (document_.design().gear.has(LegRole::main)) {
      width_ = remark();
      if (document_.design().gear.main().stands != LegStands::centre)
        put(new OtherWayRow(document, overall_width(document), this));
    }
    forward_ =
        button(tr("As far forward as it goes"), tr("Moves the mains until a keep-out stops their unit"));
    forward_->setObjectName("as-far-forward");
    connect(forward_, &QPushButton::clicked, this, [this] { as_far_forward(); });
    for (const auto& leg : document_.design().gear.legs)
      if (leg.role != LegRole::main) build_wheel(leg);
    add_findings(tr("What it does"));
    heading(tr("Field and arrangement"));
    choice("/purpose/field", tr("Flown from"));
    choice("/purpose/use", tr("Flown for"));
    put(new LayoutRow(document_, tr("Legs"), this));
    field("/purpose/obstacle_m");
    heading(tr("Ground run and side wind"), tr("stated defaults till you know better"));
    for (const char* path :
         {"/airframe/aerodynamics/thrust_N", "/airframe/aerodynamics/greatest_lift_coefficient",
          "/airframe/aerodynamics/ground_lift_coefficient", "/airframe/aerodynamics/drag_coefficient",
          "/airframe/aerodynamics/moment_coefficient", "/airframe/aerodynamics/tail_down_lift_coefficient",
          "/airframe/aerodynamics/slipstream_factor", "/airframe/aerodynamics/rolling_friction",
          "/airframe/aerodynamics/thrust_z_m", "/airframe/aerodynamics/drag_z_m",
          "/airframe/aerodynamics/aerodynamic_centre_x_m", "/airframe/aerodynamics/lift_slope_per_rad",
          "/airframe/aerodynamics/zero_lift_angle_deg", "/airframe/aerodynamics/air_density_kg_per_m3",
          "/airframe/aerodynamics/side_force_coefficient", "/airframe/aerodynamics/side_area_m2",
          "/airframe/aerodynamics/side_z_m", "/airframe/aerodynamics/crosswind_wanted_m_per_s"})
      field(path);
    finish();
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed);
    refresh();
  }

 private:
  //! Where a leg's wheel stands, and what it is.
  void build_wheel(const Leg& leg) {
    const QString base = leg_path(leg.id);
    const auto row = [&](const char* path, const QString& title) {
      put(new QuantityRow(document_, base + QString::fromLatin1(path), title, this));
    };
    const bool pair = leg.stands == LegStands::both_sides;
    QString word = text_of(document_.design().wheel_word(leg), document_.units());
    if (pair) word = tr("%1s").arg(word);
    heading(capitalised(word), pair ? tr("starboard = port") : QString());
    row("axle/x_m", tr("Axle station"));
    put(new OtherWayRow(document_, from_the_cg(document_, leg.id, word), this));
    row("axle/y_m", tr("Wheel from the centre line"));
    row("axle/z_m", tr("Axle waterline, extended"));
    row("wheel/diameter_m", tr("Wheel diameter"));
    row("wheel/width_m", tr("Wheel width"));
    row("wheel_spacing_m", tr("Two on the axle, apart by"));
    fold(tr("In its fork"), tr("growth, bulge, play"), [&] {
      row("wheel/fork_gap_m", tr("Tyre to fork and leg, measured"));
      row("wheel/fork_inside_m", tr("Fork inside, wide"));
      row("wheel/grows_wide_m", tr("Tyre grows to each side by"));
      row("wheel/bulge_m", tr("Bulges under load by"));
      row("wheel/rim_play_m", tr("Play of its bearings at the rim"));
    });
    auto* shelf = button(pair ? tr("Wheels from the shelf …") : tr("Wheel from the shelf …"),
                         tr("Ranked by load, field, scale and mass"));
    shelf->setObjectName("wheels-" + text_of(leg.id));
    connect(shelf, &QPushButton::clicked, this,
            [this, id = leg.id] { make_wheel_dialog(document_, id, window())->show(); });
  }
  void refresh() {
    const Design& d = document_.design();
    const auto say = [&](double v) { return document_.say(v, Kind::length); };
    if (width_) width_->setVisible(d.gear.main().stands != LegStands::centre);
    if (width_) width_->setText(tr("track %1").arg(say(d.gear.main().axle.y + d.port_leg().axle.y)));
    const auto unit = place::unit_of(d.gear.main());
    forward_->setVisible(unit && !d.airframe.keep_outs.empty());
    if (!unit) return;
    const auto f = place::furthest(*unit, d.airframe.keep_outs, 0, -1);
    forward_->setEnabled(std::isfinite(f.shift) && f.shift < 0);
    if (std::isfinite(f.shift))
      forward_->setText(tr("Forward %1, to the %2").arg(say(-f.shift), text_of(f.stopped_by)));
    QString buys = tr("Moves the mains until a keep-out stops their unit.");
    if (std::isfinite(f.shift))
      buys += std::isfinite(f.gain)
                  ? tr(" A unit shallower by %1 would go on for %2.").arg(say(f.shallower), say(f.gain))
                  : tr(" A unit shallower by %1 would pass it.").arg(say(f.shallower));
    forward_->setToolTip(buys);
  }
  void as_far_forward() {
    const auto unit = place::unit_of(document_.design().gear.main());
    if (!unit) return;
    const auto f = place::furthest(*unit, document_.design().airframe.keep_outs, 0, -1);
    if (!std::isfinite(f.shift)) return;
    document_.edit(tr("Mains forward to the %1").arg(QString::fromStdString(f.stopped_by)),
                   [&](Design& d) { shift_mains(d, f.shift, 0, 0); });
  }

  QLabel* width_ = nullptr;
  QPushButton* forward_;
};

}  // namespace

StationPage* make_place_page(Document& document) { return new PlacePage(document); }

}  // namespace kranich::app
