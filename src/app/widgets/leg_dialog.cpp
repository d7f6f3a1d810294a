// SPDX-License-Identifier: GPL-3.0-or-later
//! The lists of Leg: joints and their fasteners, tubes and the line of a bending leg, materials, jig and bar,
//! lay-up.
#include <QCheckBox>
#include <QDialog>
#include <QLabel>
#include <QScrollArea>
#include <QTabWidget>
#include <QVBoxLayout>
#include <cmath>

#include "app/document/when_seen.h"
#include "app/stations/page.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/findings.h"
#include "app/widgets/list_table.h"
#include "app/widgets/quantity_edit.h"
#include "core/assess/assess.h"
#include "core/assess/strength_state.h"
#include "core/base/text.h"
#include "core/force/materials.h"
#include "core/leg/alignment.h"
#include "core/model/moves.h"

namespace kranich::app {
namespace {

void fill_leg(Document& document, const std::string& which, QVBoxLayout* into, QWidget* parent) {
  const QString base = leg_path(which);
  const auto heading = [&](const QString& text) {
    auto* l = new QLabel(text, parent);
    l->setWordWrap(true);
    into->addWidget(l);
  };
  heading(
      QObject::tr("<b>Joints</b>: what carries the leg's load into the airframe. A pin through the whole leg "
                  "needs the arm at which its brace holds."));
  into->addWidget(new ListTable(
      document, base + "joints",
      {{"name", QObject::tr("Joint")},
       {"kind", QObject::tr("Held by")},
       {"face", QObject::tr("Fixed")},
       {"carries", QObject::tr("Carries")},
       {"at/x_m", "x"},
       {"at/y_m", "y"},
       {"at/z_m", "z"},
       {"material", QObject::tr("Of")},
       {"into", QObject::tr("Bears on")},
       {"diameter_m", QObject::tr("Diameter")},
       {"planes", QObject::tr("Planes")},
       {"inner_thickness_m", QObject::tr("Inner, sheet")},
       {"outer_thickness_m", QObject::tr("Outer")},
       {"brace_arm_m", QObject::tr("Brace arm")},
       {"holds_N", QObject::tr("Screw holds")},
       {"length_m", QObject::tr("Length")},
       {"width_m", QObject::tr("Width")},
       {"straps", QObject::tr("Straps")},
       {"thickness_m", QObject::tr("Plate")},
       {"cheeks_m", QObject::tr("Cheeks high")},
       {"box_depth_m", QObject::tr("Box deep")},
       {"box_wall_m", QObject::tr("Box wall")},
       {"to/x_m", QObject::tr("Post ends at x")},
       {"to/y_m", "y"},
       {"to/z_m", "z"},
       {"bay_rate_N_per_m", QObject::tr("Bay without it")},
       {"bought", QObject::tr("Bought")},
       {"pulled_N", QObject::tr("Pulled at with")}},
      [which](Design& d) {
        auto& list = d.gear.leg(which).joints;
        list.emplace_back();
        list.back().name = unused_name(list, "joint");
      },
      parent));
  const auto& joints = document.design().gear.leg(which).joints;
  for (size_t i = 0; i < joints.size(); ++i) {
    if (joints[i].kind == JointKind::pin || joints[i].kind == JointKind::post) continue;
    heading(QObject::tr("Fasteners of %1, from its middle").arg(text_of(joints[i].name).toHtmlEscaped()));
    auto* table = new ListTable(document, base + QStringLiteral("joints/%1/fasteners").arg(i),
                                {{"u_m", QObject::tr("along")},
                                 {"v_m", QObject::tr("across")},
                                 {"diameter_m", QObject::tr("diameter")}},
                                {}, parent);
    table->setMaximumHeight(150);
    into->addWidget(table);
  }
  heading(QObject::tr("<b>Fits</b>: what goes into what – leg pin and unit, axle and hub, wire and socket"));
  auto* fits = new ListTable(
      document, base + "fits",
      {{"name", QObject::tr("Fit")},
       {"pin_m", QObject::tr("Pin, axle, wire")},
       {"bore_m", QObject::tr("Bore, hub, socket")}},
      [which](Design& d) {
        auto& list = d.gear.leg(which).fits;
        list.emplace_back();
        list.back().name = unused_name(list, "fit");
      },
      parent);
  fits->setMaximumHeight(130);
  into->addWidget(fits);
  heading(QObject::tr("<b>Tubes</b>, from an attach point to the axle: one, a V, a tripod"));
  into->addWidget(new ListTable(
      document, base + "tubes",
      {{"name", QObject::tr("Tube")},
       {"top/x_m", QObject::tr("top x")},
       {"top/y_m", "y"},
       {"top/z_m", "z"},
       {"foot/x_m", QObject::tr("foot x")},
       {"foot/y_m", "y"},
       {"foot/z_m", "z"},
       {"diameter_m", QObject::tr("Diameter")},
       {"wall_m", QObject::tr("Wall")},
       {"material", QObject::tr("Of")}},
      [which](Design& d) {
        auto& list = d.gear.leg(which).tubes;
        list.emplace_back();
        list.back().name = unused_name(list, "tube");
      },
      parent));
  heading(QObject::tr(
      "<b>Sections of a leg that is one strut</b> where they change, from its upper end: a taper, a "
      "step (two rows at one place), the mouth of a bore. What is left open is the whole leg's."));
  into->addWidget(new ListTable(document, base + "sections",
                                {{"along_m", QObject::tr("From the upper end")},
                                 {"width_m", QObject::tr("Width, diameter")},
                                 {"thickness_m", QObject::tr("Thickness")},
                                 {"bore_m", QObject::tr("Hole along it")}},
                                {}, parent));
  heading(QObject::tr("<b>Cord</b>, load of one strand over its stretch, as measured or from its maker"));
  into->addWidget(new ListTable(document, base + "spring/cord/curve",
                                {{"stretch", QObject::tr("Stretch")}, {"load_N", QObject::tr("Load")}}, {},
                                parent));
  heading(
      QObject::tr("<b>Metered orifice</b>, closing: its area over the stroke, instead of the one orifice"));
  into->addWidget(new ListTable(document, base + "spring/metered",
                                {{"stroke_m", QObject::tr("Stroke")}, {"orifice_m2", QObject::tr("Orifice")}},
                                {}, parent));
  heading(QObject::tr("<b>Line of a leg that bends</b>, from its clamp to the axle"));
  into->addWidget(new ListTable(document, base + "spring/bent/line",
                                {{"at/x_m", "x"},
                                 {"at/y_m", "y"},
                                 {"at/z_m", "z"},
                                 {"width_m", QObject::tr("Width")},
                                 {"thickness_m", QObject::tr("Thickness")}},
                                {}, parent));
  heading(QObject::tr("Coil loops in its wire"));
  into->addWidget(new ListTable(document, base + "spring/bent/loops",
                                {{"along_m", QObject::tr("From the clamp")},
                                 {"mean_diameter_m", QObject::tr("Diameter")},
                                 {"turns", QObject::tr("Turns")},
                                 {"axis", QObject::tr("Axis")}},
                                {}, parent));
}

//! Jig and bar: fields, and what they come to in words a builder can act on.
class JigPage : public QWidget {
 public:
  JigPage(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    auto* all = new QVBoxLayout(this);
    const auto heading = [&](const QString& text) {
      auto* l = new QLabel(text, this);
      l->setWordWrap(true);
      all->addWidget(l);
    };
    const auto field = [&](const char* path, const QString& title = {}) {
      all->addWidget(new QuantityRow(document, QString::fromLatin1(path), title, this));
    };
    heading(tr("<b>Jig</b>: fuselage levelled, blocked and strapped; a bar stands in for the axle"));
    for (const char* p : {"/jig/reference_z_m", "/jig/reference_height_m", "/jig/point_x_m",
                          "/jig/axle_out_m", "/jig/diagonal_starboard_m", "/jig/diagonal_port_m"})
      field(p);
    jig_ = new QLabel(this);
    jig_->setObjectName("jig-says");
    jig_->setWordWrap(true);
    all->addWidget(jig_);
    heading(
        tr("<b>Bar through the axles</b>: a straight bar through one axle's bore, read where it reaches the "
           "other axle. Aft and up are positive."));
    field("/jig/bar_starboard/aft_m", tr("Through starboard: bar aft at port by"));
    field("/jig/bar_starboard/up_m", tr("Through starboard: bar above port by"));
    field("/jig/bar_port/aft_m", tr("Through port: bar aft at starboard by"));
    field("/jig/bar_port/up_m", tr("Through port: bar above starboard by"));
    bar_ = new QLabel(this);
    bar_->setObjectName("bar-says");
    bar_->setWordWrap(true);
    all->addWidget(bar_);
    all->addStretch(1);
    QObject::connect(&document, &Document::changed, this, [this] { tell(); });
    tell();
  }

 private:
  void tell() {
    const Design& d = document_.design();
    const auto made = jig_of(d);
    const auto length = [&](double v) { return document_.say(v, Kind::length); };
    // Toe is set to hundredths of a degree.
    const auto angle = [](double v) { return QStringLiteral("%1°").arg(figure(degrees(v), 2)); };
    if (const auto* missing = std::get_if<Text>(&made)) {
      jig_->setText(tr("The jig needs %1.").arg(text_of(*missing, document_.units())));
    } else {
      const auto& j = std::get<JigFigures>(made);
      QString s =
          tr("Bar <b>%1</b>, its centre line <b>%2</b> above the floor, both diagonals <b>%3</b>. A "
             "millimetre between them is %4 of toe.")
              .arg(length(j.jig.bar_length), length(j.jig.axle_height), length(j.jig.square_diagonal),
                   angle(leg::toe_of_difference(0.001, j.jig.square_diagonal, j.jig.bar_length, j.behind)));
      if (d.jig.diagonal_starboard.known() && d.jig.diagonal_port.known()) {
        const double toe = leg::toe_from_diagonals(d.jig.diagonal_starboard, d.jig.diagonal_port,
                                                   j.jig.bar_length, j.behind);
        // Halving the difference of the diagonals brings the bar square.
        s += tr("<br>As measured the bar gives %1 of toe-in to starboard, the opposite to port: bring the %2 "
                "end forward by %3.")
                 .arg(angle(toe), toe > 0 ? tr("port") : tr("starboard"),
                      length(std::abs(leg::end_of_bar_by(toe, j.jig.bar_length))));
      }
      jig_->setText(s);
    }
    QString s;
    leg::BarSetting both[2];
    for (const bool starboard : {true, false}) {
      const BarReading& r = starboard ? d.jig.bar_starboard : d.jig.bar_port;
      const Leg& l = starboard ? d.gear.main() : d.port_leg();
      const double apart = d.gear.main().axle.y + d.port_leg().axle.y;
      both[starboard ? 0 : 1] = leg::setting_from_bar(r.aft, r.up, apart);
      const auto& set = both[starboard ? 0 : 1];
      if (!std::isfinite(set.toe) || !std::isfinite(set.camber)) {
        s += tr("%1: both offsets and the axles' places are needed.<br>")
                 .arg(starboard ? tr("Starboard") : tr("Port"));
        continue;
      }
      const auto off = leg::correction(set, l.toe.known() ? l.toe.si : 0, l.camber.known() ? l.camber.si : 0,
                                       l.wheel.diameter);
      s += tr("<b>%1</b>: toe-in %2, camber %3. To set it: axle's outer end %4 by %5 and %6, front of the "
              "wheel %7 by %8 over its diameter.<br>")
               .arg(starboard ? tr("Starboard") : tr("Port"), angle(set.toe), angle(set.camber),
                    off.camber > 0 ? tr("up") : tr("down"), angle(std::abs(off.camber)),
                    off.toe > 0 ? tr("aft") : tr("forward"), off.toe > 0 ? tr("out") : tr("in"),
                    length(std::abs(off.rim)));
    }
    if (std::isfinite(both[0].toe) && std::isfinite(both[1].toe))
      s += tr("Left against right: toe differs by %1, camber by %2; together it steers %3.")
               .arg(angle(std::abs(both[0].toe - both[1].toe)),
                    angle(std::abs(both[0].camber - both[1].camber)),
                    std::abs(both[0].toe - both[1].toe) < radians(0.05) ? tr("straight")
                    : both[0].toe > both[1].toe                         ? tr("to port")
                                                                        : tr("to starboard"));
    bar_->setText(s);
  }
  Document& document_;
  QLabel* jig_;
  QLabel* bar_;
};

QWidget* scrolled(QWidget* inner) {
  auto* scroll = new QScrollArea;
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setWidget(inner);
  return scroll;
}

QWidget* materials_page(Document& document) {
  auto* page = new QWidget;
  auto* all = new QVBoxLayout(page);
  all->addWidget(new QLabel(
      QObject::tr("<b>Materials of your own</b>: they stand before typical ones of the same name"), page));
  all->addWidget(new ListTable(
      document, "/materials",
      {{"name", QObject::tr("Material")},
       {"stuff", QObject::tr("Kind")},
       {"youngs_modulus_Pa", QObject::tr("E")},
       {"density_kg_per_m3", QObject::tr("Density")},
       {"yield_Pa", QObject::tr("Yields")},
       {"ultimate_Pa", QObject::tr("Breaks")},
       {"shear_Pa", QObject::tr("Shears")},
       {"bearing_Pa", QObject::tr("Bearing")},
       {"strain", QObject::tr("Strain")},
       {"across_layers", QObject::tr("Across layers")},
       {"remark", QObject::tr("Remark")}},
      [](Design& d) {
        d.materials.emplace_back();
        d.materials.back().name = unused_name(d.materials, "material");
      },
      page));
  all->addWidget(new QLabel(QObject::tr("<b>Typical values</b>: confirm with your supplier"), page));
  auto* typical = new QTableWidget(page);
  typical->setObjectName("typical-materials");
  typical->setEditTriggers(QAbstractItemView::NoEditTriggers);
  const auto& table = force::typical_materials();
  typical->setRowCount(static_cast<int>(table.size()));
  typical->setColumnCount(6);
  typical->setHorizontalHeaderLabels(
      {QObject::tr("Material"), QObject::tr("yields, %1").arg(document.unit(Kind::stress)),
       QObject::tr("breaks"), QObject::tr("shears"), QObject::tr("bearing"), QObject::tr("Remark")});
  for (int r = 0; r < typical->rowCount(); ++r) {
    const Material& m = table[static_cast<size_t>(r)];
    const auto number = [&](const Given& g) {
      return g.known() ? document.say_number(g, Kind::stress) : QStringLiteral("–");
    };
    const QStringList cells{text_of(m.name), number(m.yield),   number(m.ultimate),
                            number(m.shear), number(m.bearing), text_of(m.remark)};
    for (int c = 0; c < cells.size(); ++c) typical->setItem(r, c, new QTableWidgetItem(cells[c]));
  }
  typical->resizeColumnsToContents();
  all->addWidget(typical, 1);
  return page;
}

QWidget* plies_page(Document& document) {
  auto* page = new QWidget;
  auto* all = new QVBoxLayout(page);
  all->addWidget(new QLabel(QObject::tr("<b>Reinforcement, ply by ply</b>: tick off what lies"), page));
  all->addWidget(new ListTable(
      document, "/plies",
      {{"laid", QObject::tr("Laid")},
       {"zone", QObject::tr("Zone")},
       {"cloth", QObject::tr("Cloth")},
       {"direction", QObject::tr("Direction")},
       {"count", QObject::tr("Plies")},
       {"overlap_m", QObject::tr("Overlap")},
       {"area_m2", QObject::tr("Area of one")},
       {"x_m", QObject::tr("Middle, along")},
       {"y_m", QObject::tr("across")},
       {"length_m", QObject::tr("Size, along")},
       {"width_m", QObject::tr("across")},
       {"areal_weight_kg_per_m2", QObject::tr("Dry cloth")},
       {"resin", QObject::tr("Resin by mass")},
       {"hard_point", QObject::tr("Hard point")}},
      [](Design& d) {
        d.plies.emplace_back();
        d.plies.back().zone = "zone";
      },
      page));
  all->addWidget(new QLabel(QObject::tr("<b>The resin as tried</b>: a cup of it, in this room"), page));
  for (const char* path : {"/mixing/working_time_s", "/mixing/ply_time_s"})
    all->addWidget(new QuantityRow(document, QString::fromLatin1(path), {}, page));
  return page;
}

}  // namespace

QWidget* make_leg_dialog(Document& document, const std::string& leg, QWidget* parent) {
  auto* dialog = new QDialog(parent);
  dialog->setObjectName("leg-dialog");
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->setWindowTitle(QObject::tr("Joints, materials, jig, lay-up"));
  dialog->resize(980, 680);
  auto* all = new QVBoxLayout(dialog);
  auto* tabs = new QTabWidget(dialog);
  tabs->setObjectName("leg-tabs");
  auto* parts = new QWidget;
  auto* lay = new QVBoxLayout(parts);
  fill_leg(document, leg, lay, parts);
  const QString word =
      text_of(document.design().legs_word(document.design().gear.leg(leg)), document.units());
  tabs->addTab(scrolled(parts), capitalised(word));
  tabs->addTab(materials_page(document), QObject::tr("Materials"));
  tabs->addTab(scrolled(new JigPage(document, nullptr)), QObject::tr("Jig and alignment"));
  tabs->addTab(plies_page(document), QObject::tr("Lay-up"));
  all->addWidget(tabs);
  return dialog;
}

}  // namespace kranich::app
