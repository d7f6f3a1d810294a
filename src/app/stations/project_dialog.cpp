// SPDX-License-Identifier: GPL-3.0-or-later
//! The aircraft and the project: what the stations draw and work on, entered once from a few dimensions.
#include <QDialog>
#include <QScrollArea>
#include <QTabWidget>
#include <QVBoxLayout>
#include <cmath>

#include "app/document/when_seen.h"
#include "app/stations/page.h"
#include "app/widgets/keep_out_meshes.h"
#include "app/widgets/layout_row.h"
#include "app/widgets/list_table.h"
#include "app/widgets/quantity_edit.h"
#include "core/model/moves.h"

namespace kranich::app {
namespace {

class Builder {
 public:
  static constexpr int row_width = 560;
  Builder(Document& document, QTabWidget* tabs) : document_(document), tabs_(tabs) {}
  void tab(const QString& title) {
    auto* inner = new QWidget;
    layout_ = new QVBoxLayout(inner);
    layout_->setContentsMargins(14, 10, 14, 10);
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidget(inner);
    tabs_->addTab(scroll, title);
  }
  void put(QWidget* w) { layout_->addWidget(w); }
  void heading(const QString& s) {
    auto* label = new QLabel("<b>" + s.toHtmlEscaped() + "</b>");
    label->setWordWrap(true);  // else the longest one makes the page too wide to be seen whole
    put(label);
  }
  void field(const QString& path, const QString& title = {}) {
    auto* row = new QuantityRow(document_, path, title);
    row->setMaximumWidth(row_width);  // the number stands beside its name, however wide the window
    put(row);
  }
  void end() { layout_->addStretch(1); }

 private:
  Document& document_;
  QTabWidget* tabs_;
  QVBoxLayout* layout_ = nullptr;
};

//! What is not decided yet: its range, what it waits for, what to leave spare, and which findings hang on it.
class WaitingList : public QLabel {
 public:
  explicit WaitingList(Document& document) : document_(document) {
    setObjectName("waiting");
    setWordWrap(true);
    QObject::connect(&document_, &Document::changed, this, [this] { refresh(); });
    QObject::connect(&document_, &Document::tolerances_changed, this, [this] { refresh(); });
    refresh();
  }

 private:
  void refresh() {
    const Design& d = document_.design();
    const ToleranceResult none;
    const auto* box = document_.tolerances();
    QString s;
    for (const auto& w : waiting_for_decisions(d, box ? *box : none)) {
      const auto spec = spec_at(d, w.path);
      const auto say = [&](double v, Kind k) { return document_.say(v, k).toHtmlEscaped(); };
      QStringList hang;
      for (const auto& f : w.findings) hang << QString::fromStdString(f);
      s +=
          QObject::tr("<p><b>%1</b>: %2 = %3 ± %4%5%6<br>%7</p>")
              .arg(w.name.empty() ? QObject::tr("not named") : QString::fromStdString(w.name).toHtmlEscaped(),
                   QString::fromStdString(w.title).toHtmlEscaped(), say(w.value, spec->kind),
                   say(w.range, spec->kind),
                   w.waits_for.empty() ? QString()
                                       : QObject::tr("; waits for %1")
                                             .arg(QString::fromStdString(w.waits_for).toHtmlEscaped()),
                   std::isfinite(w.spare)
                       ? QObject::tr("; leave <b>%1</b> spare until then").arg(say(w.spare, Kind::length))
                       : QString(),
                   hang.isEmpty() ? (box ? QObject::tr("no finding hangs on it")
                                         : QObject::tr("the tolerances are being worked out"))
                                  : QObject::tr("hangs on it: %1").arg(hang.join(", ")));
    }
    setText(s.isEmpty()
                ? QObject::tr("Everything is decided. A number that is not: say so at its mark (±, plan, …) "
                              "and give it its range, 95 ± 15.")
                : s);
  }
  Document& document_;
};

//! Columns of a list of boxes: what comes first, its two corners, what comes after.
std::vector<Column> with_corners(std::vector<Column> columns, const std::vector<Column>& after) {
  for (const auto& [corner, word] :
       {std::pair{"low", QObject::tr("from x")}, std::pair{"high", QObject::tr("to x")}})
    for (const auto& [axis, title] : {std::pair{"x_m", word}, std::pair{"y_m", QStringLiteral("y")},
                                      std::pair{"z_m", QStringLiteral("z")}})
      columns.push_back(
          {QStringLiteral("%1/%2").arg(QString::fromLatin1(corner), QString::fromLatin1(axis)), title});
  columns.insert(columns.end(), after.begin(), after.end());
  return columns;
}

//! Every leg as a row: what it is, where it stands, how it moves; any number of them.
void legs_tab(Document& document, Builder& b) {
  b.tab(QObject::tr("Legs"));
  const auto add = [](Design& d) {
    const bool any = d.gear.has(LegRole::main);
    add_leg(d, LegRole::main, any ? d.gear.main().stands : LegStands::both_sides);
  };
  // Legs have no name of their own as a rule: the head of a row tells them apart.
  const auto headed = [&](ListTable* table) {
    table->head_rows([&document](const Design& d) {
      QStringList words;
      for (const Leg& leg : d.gear.legs) words << text_of(d.leg_word(leg), document.units());
      return words;
    });
    return table;
  };
  b.heading(
      QObject::tr("Which legs there are: role main, nose, tail or outrigger; a pair stands on both sides"));
  b.put(headed(new ListTable(document, "/gear/legs",
                             {{"name", QObject::tr("Name (may be empty)")},
                              {"role", QObject::tr("Role")},
                              {"stands", QObject::tr("Stands on")},
                              {"axle/x_m", QObject::tr("Axle x")},
                              {"axle/y_m", QObject::tr("y")},
                              {"axle/z_m", QObject::tr("z, extended")},
                              {"wheel/diameter_m", QObject::tr("Wheel")},
                              {"wheel/width_m", QObject::tr("Width")},
                              {"wheel_spacing_m", QObject::tr("Two, apart")},
                              {"wheel/tyre_rate_N_per_m", QObject::tr("Tyre rate")},
                              {"wheel/flat_radius_m", QObject::tr("Flat radius")},
                              {"skid", QObject::tr("Skid")},
                              {"travel_m", QObject::tr("Travel")},
                              {"stop_rate_N_per_m", QObject::tr("Stop")},
                              {"unsprung_mass_kg", QObject::tr("Unsprung")}},
                             add)));
  b.heading(QObject::tr("How their axles move, and where they are held"));
  auto* held = headed(new ListTable(document, "/gear/legs",
                                    {{"path", QObject::tr("Axle moves")},
                                     {"top/x_m", QObject::tr("Upper end x")},
                                     {"top/y_m", "y"},
                                     {"top/z_m", "z"},
                                     {"hinge/x_m", QObject::tr("Hinge x")},
                                     {"hinge/y_m", "y"},
                                     {"hinge/z_m", "z"},
                                     {"spring/anchor_airframe/x_m", QObject::tr("Spring, airframe x")},
                                     {"spring/anchor_airframe/y_m", "y"},
                                     {"spring/anchor_airframe/z_m", "z"},
                                     {"spring/anchor_leg/x_m", QObject::tr("Spring, leg x")},
                                     {"spring/anchor_leg/y_m", "y"},
                                     {"spring/anchor_leg/z_m", "z"},
                                     {"camber_deg", QObject::tr("Camber")},
                                     {"toe_in_deg", QObject::tr("Toe-in")},
                                     {"wheel_offset_m", QObject::tr("Wheel offset")},
                                     {"axle_beyond_wheel_m", QObject::tr("Axle tip")},
                                     {"retraction/fitted", QObject::tr("Retracts")}},
                                    add));
  held->table()->setObjectName("list:/gear/legs held");
  b.put(held);
  b.heading(QObject::tr("Their tyres, what is stacked on the axle, and the braces that hold hinged struts"));
  auto* tyres = headed(new ListTable(document, "/gear/legs",
                                     {{"wheel/tyre", QObject::tr("Tyre")},
                                      {"wheel/pressure_Pa", QObject::tr("Pressure")},
                                      {"wheel/greatest_pressure_Pa", QObject::tr("Wheel's most")},
                                      {"wheel/shoulder_radius_m", QObject::tr("Shoulder")},
                                      {"wheel/fork_gap_m", QObject::tr("To fork and leg")},
                                      {"hub_width_m", QObject::tr("Hub")},
                                      {"spacer_m", QObject::tr("Spacers")},
                                      {"brake_width_m", QObject::tr("Brake")},
                                      {"brace_leg/x_m", QObject::tr("Brace, leg x")},
                                      {"brace_leg/y_m", "y"},
                                      {"brace_leg/z_m", "z"},
                                      {"brace_airframe/x_m", QObject::tr("Brace, airframe x")},
                                      {"brace_airframe/y_m", "y"},
                                      {"brace_airframe/z_m", "z"}},
                                     add));
  tyres->table()->setObjectName("list:/gear/legs tyres");
  b.put(tyres);
  b.heading(QObject::tr(
      "What goes to the bench and what was found: the length that governs, the lean wanted when down, "
      "landings counted, why this wheel"));
  auto* kept = headed(new ListTable(document, "/gear/legs",
                                    {{"governing", QObject::tr("Length that governs")},
                                     {"shoulder_m", QObject::tr("Shoulder over axle")},
                                     {"governed_m", QObject::tr("Built to")},
                                     {"lean_deg", QObject::tr("Lean, foot aft")},
                                     {"landings", QObject::tr("Landings")},
                                     {"failures", QObject::tr("Broke or bent")},
                                     {"cradle/below_m", QObject::tr("Notch below pivot")},
                                     {"cradle/width_m", QObject::tr("bears over")},
                                     {"cradle/thickness_m", QObject::tr("thick")},
                                     {"cradle/play_m", QObject::tr("play")},
                                     {"cradle/material", QObject::tr("Edge of")},
                                     {"wheel/why", QObject::tr("Why this wheel")}},
                                    add));
  kept->table()->setObjectName("list:/gear/legs kept");
  b.put(kept);
}

void fill(Document& document, QTabWidget* tabs) {
  Builder b(document, tabs);
  b.tab(QObject::tr("Project"));
  b.put(new TextRow(document, "/about/name", QObject::tr("Name")));
  b.put(new TextRow(document, "/about/summary", QObject::tr("What it is")));
  b.put(new TextRow(document, "/about/owner", QObject::tr("Owner")));
  b.put(new TextRow(document, "/about/revision", QObject::tr("Change number")));
  b.put(new TextRow(document, "/about/notes", QObject::tr("Notes")));
  b.heading(QObject::tr("Field and purpose first: limits and defaults follow from them"));
  b.put(new ChoiceRow(document, "/purpose/build", QObject::tr("Full size or model")));
  b.put(new ChoiceRow(document, "/purpose/lift", QObject::tr("Flies on")));
  b.put(new ChoiceRow(document, "/purpose/field", QObject::tr("Flown from")));
  b.put(new ChoiceRow(document, "/purpose/use", QObject::tr("Flown for")));
  b.put(new ChoiceRow(document, "/purpose/build_state",
                      QObject::tr("Build state now: readings are kept under it")));
  b.field("/purpose/obstacle_m");
  b.field("/purpose/scale_denominator");
  b.field("/purpose/prototype_wheel_diameter_m");
  b.field("/purpose/prototype_main_x_m");
  b.field("/purpose/prototype_track_m");
  b.put(new LayoutRow(document, QObject::tr("Legs")));
  b.put(new FlagRow(document, "/gear/wheel_brakes", QObject::tr("Wheel brakes")));
  b.put(new TextRow(document, "/airframe/level_reference", QObject::tr("Level reference")));
  b.put(new TextRow(document, "/landing/reason", QObject::tr("Why this design landing")));
  b.end();

  legs_tab(document, b);

  b.tab(QObject::tr("Fuselage"));
  b.heading(
      QObject::tr("Fuselage, nacelles, booms: one off the centre line has a twin on the other side. Traced "
                  "over a picture: Outline and pictures (Ctrl+T)"));
  b.put(new ListTable(document, "/airframe/bodies",
                      {{"name", QObject::tr("Body")}, {"y_m", QObject::tr("Off the centre line by")}},
                      [](Design& d) {
                        d.airframe.bodies.emplace_back();
                        d.airframe.bodies.back().name = unused_name(d.airframe.bodies, "nacelle");
                      }));
  for (size_t i = 0; i < std::max<size_t>(1, document.design().airframe.bodies.size()); ++i) {
    const auto& bodies = document.design().airframe.bodies;
    b.heading(
        QObject::tr("%1: cross-sections from front to back: where, top and bottom waterline, half width")
            .arg(i < bodies.size() ? capitalised(text_of(bodies[i].name)) : QObject::tr("Fuselage")));
    b.put(new ListTable(document, QStringLiteral("/airframe/bodies/%1/sections").arg(i),
                        {{"x_m", QObject::tr("Station")},
                         {"top_m", QObject::tr("Top")},
                         {"bottom_m", QObject::tr("Bottom")},
                         {"half_width_m", QObject::tr("Half width")},
                         {"corner", QObject::tr("Corner")}},
                        [i](Design& d) {
                          if (d.airframe.bodies.empty()) {
                            d.airframe.bodies.emplace_back();
                            d.airframe.bodies[0].name = "fuselage";
                            d.airframe.bodies[0].y = 0.0;
                          }
                          if (i < d.airframe.bodies.size()) d.airframe.bodies[i].sections.emplace_back();
                        }));
  }
  for (const auto& [path, title] :
       {std::pair{"/airframe/canopy_outline", QObject::tr("Canopy, round its outline")},
        std::pair{"/airframe/fin_outline", QObject::tr("Fin and rudder, round them")}}) {
    b.heading(title);
    b.put(new ListTable(document, QString::fromLatin1(path),
                        {{"x_m", QObject::tr("Station")},
                         {"z_m", QObject::tr("Waterline")},
                         {"corner", QObject::tr("Corner")}}));
  }

  b.heading(QObject::tr("Edges and formers that places are measured from; a former can hold a leg"));
  b.put(new ListTable(document, "/airframe/references",
                      {{"name", QObject::tr("Edge or former")},
                       {"x_m", QObject::tr("Station")},
                       {"former", QObject::tr("Holds a leg")}},
                      [](Design& d) {
                        d.airframe.references.emplace_back();
                        d.airframe.references.back().name = unused_name(d.airframe.references, "edge");
                      }));

  b.tab(QObject::tr("Wing and tail"));
  for (const char* surface : {"/airframe/wing/", "/airframe/tailplane/"}) {
    b.heading(surface[10] == 'w' ? QObject::tr("Wing") : QObject::tr("Tailplane"));
    for (const char* key : {"root_leading_edge_x_m", "root_z_m", "span_m", "root_chord_m", "tip_chord_m",
                            "leading_edge_sweep_deg", "dihedral_deg", "incidence_deg", "break_span_m",
                            "break_chord_m", "outer_sweep_deg"})
      b.put(new QuantityRow(document, QString::fromLatin1(surface) + key));
  }
  b.heading(QObject::tr("Attitudes"));
  b.field("/airframe/lift_off_wing_angle_deg");
  b.field("/airframe/stall_wing_angle_deg");
  b.end();

  b.tab(QObject::tr("Propellers and low points"));
  b.put(new ListTable(document, "/airframe/propellers",
                      {{"name", QObject::tr("Propeller")},
                       {"hub/x_m", QObject::tr("Hub station")},
                       {"hub/y_m", QObject::tr("Side")},
                       {"hub/z_m", QObject::tr("Waterline")},
                       {"diameter_m", QObject::tr("Diameter")},
                       {"axis_tilt_nose_down_deg", QObject::tr("Tilt")}},
                      [](Design& d) {
                        d.airframe.propellers.emplace_back();
                        d.airframe.propellers.back().name = unused_name(d.airframe.propellers, "propeller");
                      }));
  b.heading(QObject::tr("Points that may touch the ground: tail, belly, wing tip, other"));
  b.put(new ListTable(document, "/airframe/low_points",
                      {{"name", QObject::tr("Point")},
                       {"role", QObject::tr("Where")},
                       {"at/x_m", QObject::tr("Station")},
                       {"at/y_m", QObject::tr("Side")},
                       {"at/z_m", QObject::tr("Waterline")}},
                      [](Design& d) {
                        d.airframe.low_points.emplace_back();
                        d.airframe.low_points.back().name = unused_name(d.airframe.low_points, "point");
                      }));

  b.tab(QObject::tr("Keep-outs and units"));
  b.heading(QObject::tr(
      "What the gear must not run into: boxes by their corners, cylinders by the ends of their "
      "centre line, planes by a point of them and one straight before them on the free side, prisms by "
      "an outline and how far it runs, meshes by a file and where its origin lies (from x, y, z); starboard "
      "side"));
  b.put(
      new ListTable(document, "/airframe/keep_outs",
                    with_corners({{"name", QObject::tr("Keep-out")}, {"shape", QObject::tr("Shape")}},
                                 {{"radius_m", QObject::tr("radius")}, {"runs", QObject::tr("Prism runs")}}),
                    [](Design& d) {
                      d.airframe.keep_outs.emplace_back();
                      d.airframe.keep_outs.back().name = unused_name(d.airframe.keep_outs, "keep-out");
                    }));
  b.put(new ListTables(
      document,
      [](const Design& d) {
        std::vector<ListTables::Each> prisms;
        const auto& all = d.airframe.keep_outs;
        for (size_t i = 0; i < all.size(); ++i)
          if (all[i].shape == Shape::prism)
            prisms.push_back(
                {QStringLiteral("/airframe/keep_outs/%1/outline").arg(i),
                 QObject::tr("Outline of “%1”, corner by corner; along the way it runs they may lie anywhere")
                     .arg(QString::fromStdString(all[i].name))});
        return prisms;
      },
      {{"at/x_m", "x"}, {"at/y_m", "y"}, {"at/z_m", "z"}}));
  b.put(make_keep_out_meshes(document));
  b.heading(
      QObject::tr("What must go in and out past them with the aircraft built: a box where it sits, and the "
                  "straight way it goes"));
  b.put(new ListTable(
      document, "/airframe/accesses",
      with_corners({{"name", QObject::tr("Goes in and out")}}, {{"way_x_m", QObject::tr("goes aft")},
                                                                {"way_y_m", QObject::tr("to starboard")},
                                                                {"way_z_m", QObject::tr("up")},
                                                                {"clearance_m", QObject::tr("room wanted")}}),
      [](Design& d) {
        d.airframe.accesses.emplace_back();
        d.airframe.accesses.back().name = unused_name(d.airframe.accesses, "tray");
      }));
  b.field("/airframe/body_twist_deg");
  for (const Leg& of : document.design().gear.legs) {
    const QString leg = leg_path(of.id) + "retraction/";
    const QString word = text_of(document.design().leg_word(of), document.units());
    b.heading(QObject::tr("Unit's body of the %1, from its pivot").arg(word));
    for (const char* corner :
         {"unit_low/x_m", "unit_low/y_m", "unit_low/z_m", "unit_high/x_m", "unit_high/y_m", "unit_high/z_m"})
      b.field(leg + corner, QStringLiteral("%1 %2")
                                .arg(corner[5] == 'l' ? QObject::tr("least") : QObject::tr("greatest"))
                                .arg(QChar(QString::fromLatin1(corner).section('/', 1)[0])));
  }
  b.end();

  b.tab(QObject::tr("Not decided yet"));
  b.put(new WaitingList(document));
  b.heading(QObject::tr("What each waits for: the number is named by its path, as in the file format"));
  b.put(new ListTable(document, "/decisions",
                      {{"name", QObject::tr("Not decided")},
                       {"waits_for", QObject::tr("Waits for")},
                       {"path", QObject::tr("Number")},
                       {"spare_m", QObject::tr("Leave spare")}},
                      [](Design& d) {
                        d.decisions.emplace_back();
                        d.decisions.back().name = unused_name(d.decisions, "decision");
                      }));

  b.tab(QObject::tr("Loadings"));
  b.heading(
      QObject::tr("Who and what is aboard is ticked in Weigh; “flown: no” is for the bench and the scales"));
  b.put(new ListTable(document, "/loadings",
                      {{"name", QObject::tr("Loading")}, {"flown", QObject::tr("Flown")}}, [](Design& d) {
                        d.loadings.emplace_back();
                        d.loadings.back().name = unused_name(d.loadings, "loading");
                      }));

  b.tab(QObject::tr("Doors"));
  b.put(new ListTable(document, "/doors",
                      {{"name", QObject::tr("Door")},
                       {"leg", QObject::tr("Leg"), Refers::leg},
                       {"hinge_from/x_m", QObject::tr("Hinge from x")},
                       {"hinge_from/y_m", "y"},
                       {"hinge_from/z_m", "z"},
                       {"hinge_to/x_m", QObject::tr("to x")},
                       {"hinge_to/y_m", "y"},
                       {"hinge_to/z_m", "z"},
                       {"width_m", QObject::tr("Width")},
                       {"closed_towards", QObject::tr("Lies to")},
                       {"open_angle_deg", QObject::tr("Opens by")},
                       {"time_open_s", QObject::tr("Opens in")},
                       {"time_close_s", QObject::tr("Closes in")},
                       {"slowest_factor", QObject::tr("Slowest ×")},
                       {"fastest_factor", QObject::tr("Fastest ×")}},
                      [](Design& d) {
                        d.doors.emplace_back();
                        d.doors.back().id = unused_id(d, "door");
                        d.doors.back().name = unused_name(d.doors, "door");
                        if (d.gear.has(LegRole::main)) d.doors.back().leg = d.gear.main().id;
                      }));
}

}  // namespace

QWidget* make_project_dialog(Document& document, QWidget* parent) {
  auto* dialog = new QDialog(parent);
  dialog->setObjectName("project-dialog");
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->setWindowTitle(QObject::tr("Aircraft and project"));
  dialog->resize(760, 560);
  auto* all = new QVBoxLayout(dialog);
  auto* tabs = new QTabWidget(dialog);
  all->addWidget(tabs);
  fill(document, tabs);
  return dialog;
}

}  // namespace kranich::app
