// SPDX-License-Identifier: GPL-3.0-or-later
//! Sequence: who moves when. The timeline under the moving drawing; bars and playhead can be dragged.
#include <QAction>
#include <QComboBox>
#include <QElapsedTimer>
#include <algorithm>
#include <array>
#include <cmath>

#include "app/document/when_seen.h"
#include "app/drawing/interlock_pane.h"
#include "app/drawing/swing_pane.h"
#include "app/drawing/timeline_pane.h"
#include "app/stations/page.h"
#include "app/theme.h"
#include "app/widgets/list_table.h"
#include "app/widgets/sequencer_link.h"
#include "core/assess/box_cures.h"
#include "core/assess/doors_state.h"
#include "core/io/stock.h"
#include "core/model/describe_words.h"
#include "core/sequence/boxes.h"
#include "core/sequence/plan.h"
#include "core/sequence/sequence.h"

namespace kranich::app {
namespace {

class SequencePage : public StationPage {
 public:
  explicit SequencePage(Document& document) : StationPage(document, Station::sequence) {
    for (SwingPane*& shown : legs_) {
      auto pane = std::make_unique<SwingPane>(document);
      shown = pane.get();
      shown->playback = true;
      board()->add(std::move(pane), {0, 0, 0, 0});
    }
    auto timeline = std::make_unique<TimelinePane>(document, playback_, [this] { show_time(); });
    timeline_ = timeline.get();
    const bool doors = !document.design().doors.empty();
    board()->add(std::move(timeline), {0, 0.62, doors ? 0.69 : 1.0, 0.38});
    if (doors) {
      auto interlock = std::make_unique<InterlockPane>(document, [this] { return shown_door(); });
      interlock->now = [this] { return now_at(); };
      board()->add(std::move(interlock), {0.695, 0.63, 0.3, 0.36});
    }
    auto* ways = one_of({{"sequence-up", tr("Going up")}, {"sequence-down", tr("Going down")}});
    play_ = button(tr("Play"), tr("Plays the sequence at its own speed (F5)"));
    play_->setObjectName("play");
    auto* shortcut = new QAction(this);
    shortcut->setShortcut(QKeySequence(Qt::Key_F5));
    connect(shortcut, &QAction::triggered, play_, &QPushButton::click);
    addAction(shortcut);
    heading(tr("Steps"), tr("seconds after the selector; drag the bars"));
    steps_box_ = put(new QWidget(this));
    steps_ = new QVBoxLayout(steps_box_);
    steps_->setContentsMargins(0, 0, 0, 0);
    steps_->setSpacing(2);
    field("/sequence/margin_s", tr("Time wanted in hand"));
    put(new TextRow(document_, "/sequence/order", tr("Order of the legs, and why"), this));
    auto* lay_out =
        button(tr("Lay out with the least waits"),
               tr("Every leg as soon as its doors free it, every door as soon as the slowest leg rests, with "
                  "the time wanted in hand"));
    lay_out->setObjectName("lay-out");
    connect(lay_out, &QPushButton::clicked, this, &SequencePage::lay_out);
    laid_out_ = remark();
    laid_out_->hide();
    fold(tr("Steps as a table"), tr("add, take away"), [this] {
      for (const bool up : {true, false}) build_table(up);
    });
    fold(tr("Steering, up-locks, brakes"), tr("as actors"), [this] { build_aids(); });
    fold(tr("Boxes that time it"), tr("outputs, holds"), [this] { build_boxes(); });
    fold(tr("Hand it on"), tr("table, wiring, sequencer"), [this] {
      link_ = put(new SequencerLink(document_, playback_, this));
      connect(link_, &SequencerLink::answer_changed, this, [this] { board()->update(); });
      timeline_->answered = [this] { return link_->answered(); };
    });
    add_findings(tr("What it does"));
    connect(findings(), &FindingList::chosen_changed, this, [this] { board()->update(); });
    heading(tr("Travel times"));
    for (const Leg& leg : document.design().gear.legs) {
      const QString word = text_of(document.design().legs_word(leg), document.units());
      const QString name = capitalised(word);
      const auto entry = [&](const char* key, const QString& title) {
        put(new QuantityRow(document_, leg_path(leg.id) + "retraction/" + key, title.arg(name), this));
      };
      entry("time_up_s", tr("%1 up"));
      entry("time_down_s", tr("%1 down"));
      entry("slowest_factor", tr("%1, slowest ×"));
      entry("fastest_factor", tr("%1, fastest ×"));
      put(new ChoiceRow(document_, leg_path(leg.id) + "retraction/times_from", tr("%1: times from").arg(name),
                        this));
      takes_.emplace_back(leg.id, remark());
      takes_.back().second->setObjectName("takes-" + text_of(leg.id));
    }
    for (size_t i = 0; i < document.design().doors.size(); ++i) {
      if (doors::moved_by_leg(document.design().doors[i])) continue;  // it needs no time of its own
      heading(text_of(document.design().actor_word(document.design().doors[i].id), document.units()));
      for (const char* key : {"time_open_s", "time_close_s", "slowest_factor", "fastest_factor",
                              "frees_leg_at", "zone_enter", "zone_leave"})
        put(new QuantityRow(document_, QStringLiteral("/doors/%1/%2").arg(i).arg(key), {}, this));
      remark(tr(
          "where leg and door are in each other's way follows from the drawing; shares entered here count as "
          "well"));
    }
    put(
        remark(tr("Retracting legs and doors crush: aircraft on jacks with a safe stand, hands out, a second "
                  "person on the switch, breaker pulled while working.")));
    finish();
    connect(ways, &QButtonGroup::idClicked, this, [this](int way) {
      playback_.up = way == 0;
      playback_.time = 0;
      build_steps();
      show_time();
    });
    connect(play_, &QPushButton::clicked, this, &SequencePage::toggle_play);
    ticker_.setInterval(30);
    connect(&ticker_, &QTimer::timeout, this, [this] {
      playback_.time += static_cast<double>(clock_.restart()) / 1000;
      if (playback_.time >= timeline_->line().latest_end) {
        playback_.time = timeline_->line().latest_end;
        toggle_play();
      }
      show_time();
    });
    refresh_when_seen(
        this, &document_,
        [this] {
          if (step_count_ != now_steps().size()) build_steps();
          show_takes();
          show_time();
        },
        &Document::changed);
    build_steps();
    playback_.time = std::min(3.0, timeline_->line().latest_end);
    show_takes();
    show_time();
  }

 private:
  void lay_out() {
    std::vector<Text> missing;
    const auto zones = zones_of(document_.assessment());
    const Sequence made =
        sequence::laid_out(document_.design(), document_.assessment().times, zones, missing);
    document_.edit(tr("Lay out the sequence"), [&](Design& d) {
      d.sequence.up = made.up;
      d.sequence.down = made.down;
    });
    laid_out_->setVisible(!missing.empty());
    laid_out_->setText(missing.empty()
                           ? QString()
                           : tr("Not laid out for want of %1: left as it was.")
                                 .arg(text_of(enumerated(std::move(missing)), document_.units())));
    build_steps();
    show_time();
  }
  void build_table(bool up) {
    heading(up ? tr("Steps going up") : tr("Steps going down"));
    const auto steps = [up](auto& d) -> auto& { return up ? d.sequence.up : d.sequence.down; };
    put(new ListTable(
        document_, up ? "/sequence/up" : "/sequence/down",
        {{"actor", tr("Actor"), Refers::actor}, {"action", tr("Does")}, {"start_s", tr("Starts at")}},
        [steps, up](Design& d) {
          steps(d).emplace_back();
          if (d.gear.has(LegRole::main)) steps(d).back().actor = d.gear.main().id;
          steps(d).back().action = up ? Action::raise : Action::lower;
        },
        this));
  }
  //! What else is switched while legs go up and down.
  void build_aids() {
    put(new ListTable(
        document_, "/sequence/aids",
        {{"kind", tr("What")},
         {"leg", tr("Of"), Refers::leg},
         {"takes_s", tr("Takes")},
         {"slowest_factor", tr("Slowest ×")},
         {"fastest_factor", tr("Fastest ×")}},
        [](Design& d) {
          Aid aid;
          aid.id = unused_id(d, "aid");
          // The leg that steers, else one that retracts.
          for (const Leg& leg : d.gear.legs)
            if (leg.retraction.fitted && (aid.leg.empty() || leg.steering.kind != SteeringKind::none))
              aid.leg = leg.id;
          if (aid.leg.empty() && !d.gear.legs.empty()) aid.leg = d.gear.legs.front().id;
          d.sequence.aids.push_back(std::move(aid));
        },
        this));
    remark(
        tr("Steering lets go: centred, its command taken away before the leg goes up, given back when it is "
           "down. An up-lock lets go before the leg comes down. Brakes hold: wheels stopped before they are "
           "in, free before they touch. Each needs its steps; the finding offers to set them."));
  }
  //! Boxes, what hangs on them, and the shelf that they are bought from.
  void build_boxes() {
    auto* shelf = new QComboBox(this);
    shelf->setObjectName("box-shelf");
    shelf->setAccessibleName(tr("Add a box from the shelf"));
    shelf->addItem(tr("Add a box …"));
    for (const auto& b : shipped_stock().boxes)
      shelf->addItem(tr("%1: %2 outputs, holds %3, %4")
                         .arg(text_of(b.name))
                         .arg(b.outputs.si)
                         .arg(document_.say(b.longest_hold, Kind::time),
                              text_of((at_switch_on_names[static_cast<size_t>(b.at_switch_on)]))));
    put(shelf);
    connect(shelf, &QComboBox::activated, this, [this, shelf](int index) {
      shelf->setCurrentIndex(0);
      if (index < 1) return;
      const auto& from = shipped_stock().boxes[static_cast<size_t>(index - 1)];
      document_.edit(tr("Add a box"), [&](Design& d) {
        d.sequence.boxes.push_back(new_box(d));
        take(d.sequence.boxes.back(), from);
      });
    });
    put(new ListTable(
        document_, "/sequence/boxes",
        {{"id", tr("Id")},
         {"name", tr("Box")},
         {"outputs", tr("Outputs")},
         {"longest_hold_s", tr("Holds")},
         {"at_switch_on", tr("Switched on")},
         {"chained_to", tr("Started by")}},
        [](Design& d) { d.sequence.boxes.push_back(new_box(d)); }, this));
    put(new ListTable(
        document_, "/sequence/outputs",
        {{"box", tr("Box")},
         {"output", tr("Output")},
         {"actor", tr("Moves"), Refers::actor},
         {"reversed", tr("Reverser")}},
        [](Design& d) {
          BoxOutput o;
          // The first box that has one left, and the first actor that hangs on none.
          for (const SequencerBox& b : d.sequence.boxes)
            if (const int free = sequence::free_output(d, b); free && o.box.empty()) {
              o.box = b.id;
              o.number = Given(static_cast<double>(free));
            }
          if (const auto left = sequence::on_no_box(d); !left.empty()) o.actor = left[0];
          d.sequence.outputs.push_back(o);
        },
        this));
    remark(
        tr("Boxes that are trusted less move doors, never flight controls; none stands between the receiver "
           "and a flight control."));
  }
  //! A box by the next letter that none bears.
  static SequencerBox new_box(const Design& d) {
    SequencerBox box;
    for (char c = 'A'; c <= 'Z'; ++c) {
      box.id = std::string(1, c);
      if (std::none_of(d.sequence.boxes.begin(), d.sequence.boxes.end(),
                       [&](const SequencerBox& b) { return b.id == box.id; }))
        break;
    }
    return box;
  }
  const std::vector<Step>& now_steps() const {
    return playback_.up ? document_.design().sequence.up : document_.design().sequence.down;
  }
  void build_steps() {
    while (QLayoutItem* item = steps_->takeAt(0)) {
      if (item->widget()) item->widget()->deleteLater();
      delete item;
    }
    step_count_ = now_steps().size();
    for (size_t i = 0; i < step_count_; ++i) {
      const Step& s = now_steps()[i];
      steps_->addWidget(new QuantityRow(
          document_, QStringLiteral("/sequence/%1/%2/start_s").arg(playback_.up ? "up" : "down").arg(i),
          QStringLiteral("%1 %2").arg(text_of(document_.design().actor_word(s.actor), document_.units()),
                                      text_of(action_names[static_cast<size_t>(s.action)])),
          steps_box_));
    }
  }
  //! The door of the finding that was chosen, else the one that closes with the least in hand.
  std::string shown_door() {
    const Design& d = document_.design();
    const auto there = [&](const std::string& id) {
      return std::any_of(d.doors.begin(), d.doors.end(), [&](const Door& x) { return x.id == id; });
    };
    const auto id_of = [](const std::string& key) {
      const std::string after = key.rfind("door:", 0) == 0 ? key.substr(5) : std::string();
      return after.substr(0, after.find('/'));
    };
    if (findings())
      if (const Finding* f = findings()->chosen_finding())
        if (const std::string id = id_of(f->subject.key); there(id)) return id;
    return d.doors.empty() ? std::string() : d.doors.front().id;
  }
  InterlockPane::Now now_at() {
    const Design& d = document_.design();
    InterlockPane::Now now{0, 0};
    for (const Door& door : d.doors) {
      if (door.id != shown_door()) continue;
      const auto& line = timeline_->line();
      now.leg = sequence::position_at(line, door.leg, playback_.time, playback_.up ? 0 : 1);
      const auto opening = legs_[0]->door_opening.find(door.id);
      if (opening != legs_[0]->door_opening.end()) now.door = opening->second / door.open_angle;
    }
    return now;
  }
  void toggle_play() {
    if (ticker_.isActive()) {
      ticker_.stop();
      play_->setText(tr("Play"));
      return;
    }
    if (playback_.time >= timeline_->line().latest_end) playback_.time = 0;
    clock_.start();
    ticker_.start();
    play_->setText(tr("Pause"));
  }
  //! Below each leg's times: what its drive computes, and what is counted with.
  void show_takes() {
    for (const auto& [leg, label] : takes_) {
      const auto* t = sequence::times_of(document_.assessment().times, leg);
      label->setVisible(t != nullptr);
      if (!t) continue;
      const auto told = [](const sequence::Travel& travel) {
        if (!std::isfinite(travel.nominal)) return tr("not known");
        const auto bound = [&](double factor) {
          return std::isfinite(factor) ? figure(travel.nominal * factor, 1) : QStringLiteral("?");
        };
        return tr("%1 s (%2 to %3)")
            .arg(figure(travel.nominal, 1), bound(travel.fastest), bound(travel.slowest));
      };
      const auto both = [&](const sequence::Travel& up, const sequence::Travel& down) {
        return tr("up %1, down %2").arg(told(up), told(down));
      };
      QString text = tr("counted: %1\nits drive computes: %2")
                         .arg(both(t->up.counted, t->down.counted), both(t->up.computed, t->down.computed));
      if (t->by_drive) text += tr("\na grey mark over a bar: the time entered");
      label->setText(text);
    }
  }
  void show_time() {
    const Design& d = document_.design();
    const auto& line = timeline_->line();
    show_legs();
    for (SwingPane* pane : legs_) {
      pane->leg_share = sequence::position_at(line, pane->leg, playback_.time, playback_.up ? 0 : 1);
      for (const auto& door : d.doors) {
        // A door that is not opened in this direction stands open all along.
        const bool opens = std::any_of(line.bars.begin(), line.bars.end(), [&](const auto& b) {
          return b.actor == door.id && b.action == Action::open;
        });
        const double share = sequence::position_at(line, door.id, playback_.time, opens ? 0 : 1);
        double& opening = pane->door_opening[door.id];
        if (doors::moved_by_leg(door))
          opening = doors::opening_at(
              d, door, sequence::position_at(line, door.leg, playback_.time, playback_.up ? 0 : 1));
        else
          opening = share * door.open_angle;
      }
    }
    board()->update();
  }
  //! Every line of legs that retracts side by side, as far as there is room; where none does, what is said of
  //! that.
  void show_legs() {
    std::vector<std::string> moving;
    const auto& legs = document_.design().gear.legs;
    for (const Leg& leg : legs)
      if (leg.retraction.fitted && moving.size() < legs_.size()) moving.push_back(leg.id);
    if (moving.empty() && !legs.empty()) moving.push_back(legs.front().id);
    for (size_t i = 0; i < legs_.size(); ++i) {
      const bool shown = i < moving.size();
      if (shown) legs_[i]->leg = moving[i];
      const double wide = 1.0 / static_cast<double>(std::max<size_t>(moving.size(), 1));
      board()->set_share(legs_[i], shown ? QRectF(wide * static_cast<double>(i), 0, wide, 0.62) : QRectF());
    }
  }
  Playback playback_;
  std::array<SwingPane*, 4> legs_{};
  TimelinePane* timeline_;
  QPushButton* play_;
  QLabel* laid_out_;
  SequencerLink* link_ = nullptr;
  QWidget* steps_box_;
  QVBoxLayout* steps_;
  size_t step_count_ = 0;
  std::vector<std::pair<std::string, QLabel*>> takes_;
  QTimer ticker_;
  QElapsedTimer clock_;
};

}  // namespace

StationPage* make_sequence_page(Document& document) { return new SequencePage(document); }

}  // namespace kranich::app
