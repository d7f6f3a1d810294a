// SPDX-License-Identifier: GPL-3.0-or-later
//! Doors: how they are moved, what they pass, what holds them.
#include <QButtonGroup>
#include <QComboBox>
#include <QGridLayout>

#include "app/document/when_seen.h"
#include "app/drawing/interlock_pane.h"
#include "app/stations/page.h"
#include "app/widgets/list_table.h"
#include "core/model/locate.h"
#include "core/model/moves.h"

namespace kranich::app {
namespace {

//! What a text that is an id refers to, chosen from a list by its name.
class RefersRow : public QWidget {
 public:
  using Choices = std::function<std::vector<std::pair<std::string, QString>>(const Design&)>;
  RefersRow(Document& document, const QString& path, const QString& title, Choices choices, QWidget* parent)
      : QWidget(parent) {
    auto* line = new QHBoxLayout(this);
    line->setContentsMargins(0, 1, 0, 1);
    auto* label = new QLabel(title, this);
    label->setWordWrap(true);
    auto* box = new QComboBox(this);
    box->setObjectName("refers:" + path);
    box->setAccessibleName(title);
    line->addWidget(label, 1);
    line->addWidget(box, 1);
    const auto show = [box, &document, choices, path = path.toStdString()] {
      const QSignalBlocker quiet(box);
      box->clear();
      for (const auto& [id, word] : choices(document.design()))
        box->addItem(word, QString::fromStdString(id));
      if (const auto* now = text_at(document.design(), path))
        box->setCurrentIndex(box->findData(QString::fromStdString(*now)));
    };
    show();
    refresh_when_seen(this, &document, show, &Document::changed);
    connect(box, QOverload<int>::of(&QComboBox::activated), this,
            [box, title, &document, path = path.toStdString()] {
              document.edit(tr("Set %1").arg(title), [&](Design& d) {
                if (auto* text = locate_text(d, path)) *text = box->currentData().toString().toStdString();
              });
            });
  }
};

//! A first panel over the mouth of the leg's well, hinged at its outboard edge.
Door over_the_well(const Design& d) {
  Door door;
  door.id = unused_id(d, "door");
  door.name = unused_name(d.doors, "door");
  const Leg* leg = nullptr;
  for (const Leg& l : d.gear.legs)
    if (l.retraction.fitted && !leg) leg = &l;
  if (!leg && d.gear.has(LegRole::main)) leg = &d.gear.main();
  if (!leg) leg = d.gear.legs.empty() ? nullptr : &d.gear.legs.front();
  if (!leg) return door;
  door.leg = leg->id;
  const Well& w = leg->retraction.well;
  if (!w.low.known() || !w.high.known()) return door;
  const auto guess = [](double v) { return Given(v, Origin::estimated); };
  for (auto& [end, x] : {std::pair{&door.hinge_from, w.low.x.si}, std::pair{&door.hinge_to, w.high.x.si}}) {
    end->x = guess(x);
    end->y = guess(w.high.y);
    end->z = guess(w.low.z);
  }
  // A well on the centre line has a door on each side.
  const bool centre = leg->stands == LegStands::centre;
  door.width = guess(centre ? w.high.y.si : w.high.y - w.low.y);
  door.closed_towards = guess(-1);
  door.open_angle = guess(radians(90));
  return door;
}

class DoorsPage : public StationPage {
 public:
  explicit DoorsPage(Document& document) : StationPage(document, Station::doors) {
    const auto shown = [this] { return shown_; };
    auto door = std::make_unique<DoorPane>(document, shown);
    pane_ = door.get();
    board()->add(std::move(door), whole);
    board()->add(std::make_unique<InterlockPane>(document, shown), {0.635, 0.01, 0.355, 0.6});
    board()->add(std::make_unique<DoorHoldPane>(document, shown), {0.01, 0.63, 0.98, 0.36});
    buttons_ = put(new QWidget(this));
    auto* grid = new QGridLayout(buttons_);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setSpacing(3);
    auto* add = new QPushButton(tr("Add a door"), this);
    add->setObjectName("add-door");
    put(add);
    connect(add, &QPushButton::clicked, this, [this] {
      Door made = over_the_well(document_.design());
      document_.setProperty("shown door", QString::fromStdString(made.id));
      document_.edit(tr("Add a door"), [&](Design& d) { d.doors.push_back(made); });
    });
    for (size_t i = 0; i < document.design().doors.size(); ++i) build_door(i);
    add_findings(tr("What it does"));
    put(remark(
        tr("Doors and legs crush: aircraft on jacks with a safe stand, hands out, breaker pulled while "
           "working. Air loads are for planning; what hangs in the stream is tried on the ground first.")));
    finish();
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed);
    connect(findings(), &FindingList::chosen_changed, this, [this] {
      const Finding* f = findings()->chosen_finding();
      if (f && f->subject.key.rfind("door:", 0) == 0) show_door(f->subject.key.substr(5));
    });
    const auto& doors = document.design().doors;
    const std::string wanted = document.property("shown door").toString().toStdString();
    const auto is = [&](const Door& d) { return d.id == wanted; };
    show_door(std::any_of(doors.begin(), doors.end(), is) ? wanted
              : doors.empty()                             ? std::string()
                                                          : doors.front().id);
  }

 private:
  static constexpr QRectF whole{0, 0, 0.63, 0.63};
  struct Panel {
    std::string id;
    QPushButton* button;
    QWidget *box, *crank, *own_crank, *balls, *leg_ball, *tie, *stop, *torque, *ramp;
  };

  void build_door(size_t i) {
    const Door& door = document_.design().doors[i];
    const QString base = QStringLiteral("/doors/%1/").arg(i);
    Panel panel{};
    panel.id = door.id;
    panel.button = new QPushButton(buttons_);
    panel.button->setCheckable(true);
    panel.button->setObjectName("door-" + QString::fromStdString(door.id));
    group_.addButton(panel.button);
    static_cast<QGridLayout*>(buttons_->layout())
        ->addWidget(panel.button, static_cast<int>(i) / 2, static_cast<int>(i) % 2);
    connect(panel.button, &QPushButton::clicked, this, [this, id = door.id] { show_door(id); });
    panel.box = section([&] {
      const auto row = [&](const char* path, const QString& title = {}) {
        put(new QuantityRow(document_, base + QString::fromLatin1(path), title, this));
      };
      put(new TextRow(document_, base + "name", tr("Door"), this));
      put(new RefersRow(
          document_, base + "leg", tr("Covers the leg"),
          [this](const Design& d) {
            std::vector<std::pair<std::string, QString>> list;
            for (const Leg& l : d.gear.legs)
              list.emplace_back(l.id, text_of(d.leg_word(l), document_.units()));
            return list;
          },
          this));
      row("open_angle_deg");
      row("ajar_deg");
      fold(tr("Panel"), tr("hinge, width, thickness"), [&] {
        place(base + "hinge_from", tr("Hinge, front or first end"));
        place(base + "hinge_to", tr("Other end"));
        row("width_m");
        row("closed_towards", tr("Lies to starboard or forward 1, port or aft −1"));
        row("closed_tilt_deg");
        row("thickness_m");
      });
      fold(tr("What moves it"), tr("crank, leg, stop, wire"), [&] {
        put(new ChoiceRow(document_, base + "drive/way", tr("Moved"), this));
        panel.crank = section([&] {
          put(new RefersRow(
              document_, base + "drive/with", tr("Its rod hangs on the crank of"),
              [this, i](const Design& d) {
                std::vector<std::pair<std::string, QString>> list{{"", tr("its own")}};
                for (size_t k = 0; k < d.doors.size(); ++k)
                  if (k != i && d.doors[k].drive.way == DoorWay::crank && d.doors[k].drive.with.empty())
                    list.emplace_back(d.doors[k].id, text_of(d.actor_word(d.doors[k].id), document_.units()));
                return list;
              },
              this));
        });
        panel.own_crank = section([&] {
          put(new ChoiceRow(document_, base + "drive/axis", tr("Its axis"), this));
          place(base + "drive/crank", tr("Axis"));
        });
        panel.torque = section([&] {
          row("drive/throw_deg", tr("Crank's turn to open, anticlockwise from front, right, above"));
        });
        panel.balls = section([&] { place(base + "drive/crank_ball", tr("Rod's end on the crank")); });
        panel.leg_ball = section([&] { place(base + "drive/leg_ball", tr("End on the leg, gear up")); });
        panel.tie = section([&] { row("drive/tie_length_m"); });
        panel.stop = section([&] {
          place(base + "drive/stop", tr("Stop in the bay"));
          row("drive/arm_length_m");
        });
        panel.ramp = section([&] {
          for (const char* path : {"drive/ramp_from_m", "drive/ramp_to_m", "drive/ramp_height_m"}) row(path);
        });
        place(base + "drive/door_ball", tr("End on the door"));
        row("drive/torque_N_m");
      });
      fold(tr("What holds it open"), tr("weight, air, spring, magnet"), [&] {
        row("mass_kg");
        row("cg_out_m");
        row("hold/airspeed_m_per_s");
        row("hold/normal_coefficient", tr("Normal force coefficient, broadside (flat plate 1.2)"));
        row("hold/hinge_stiffness_N_m_per_rad", tr("Hinge's stiffness (tape, fabric; none: 0)"));
        row("hold/hinge_friction_N_m");
        place(base + "hold/spring_door", tr("Spring's end on the door"));
        place(base + "hold/spring_airframe", tr("Its anchor, or the cable's guide"));
        row("hold/spring_force_N");
        row("hold/spring_rate_N_per_m");
        row("hold/spring_length_m");
        row("hold/magnet_force_N");
        row("hold/magnet_out_m");
      });
      auto* gone = button(tr("Remove this door"), tr("With its steps; can be undone"));
      gone->setObjectName(QStringLiteral("remove-door-%1").arg(i));
      connect(gone, &QPushButton::clicked, this, [this, id = door.id] {
        document_.edit(tr("Remove a door"),
                       [&](Design& d) { std::erase_if(d.doors, [&](const Door& x) { return x.id == id; }); });
      });
    });
    panels_.push_back(panel);
  }

  void show_door(const std::string& id) {
    shown_ = id;
    document_.setProperty("shown door", QString::fromStdString(id));
    for (const Panel& p : panels_) {
      p.box->setVisible(p.id == id);
      if (p.id == id) p.button->setChecked(true);
    }
    refresh();
    board()->set_share(pane_, whole);
  }

  void refresh() {
    const Design& d = document_.design();
    for (size_t i = 0; i < panels_.size() && i < d.doors.size(); ++i) {
      const Door& door = d.doors[i];
      const Panel& p = panels_[i];
      p.button->setText(capitalised(text_of(d.actor_word(door.id), document_.units())));
      const DoorWay way = door.drive.way;
      const bool crank = way == DoorWay::crank;
      const bool arm = way == DoorWay::stop_arm;
      p.crank->setVisible(crank);
      p.own_crank->setVisible(arm || (crank && door.drive.with.empty()));
      p.torque->setVisible(crank && door.drive.with.empty());
      p.balls->setVisible(crank || arm);
      p.leg_ball->setVisible(way == DoorWay::leg_rod || way == DoorWay::wire);
      p.tie->setVisible(way == DoorWay::wire);
      p.stop->setVisible(arm);
      p.ramp->setVisible(way == DoorWay::wheel);
    }
  }

  std::string shown_;
  DoorPane* pane_;
  QWidget* buttons_;
  QButtonGroup group_;
  std::vector<Panel> panels_;
};

}  // namespace

StationPage* make_doors_page(Document& document) { return new DoorsPage(document); }

}  // namespace kranich::app
