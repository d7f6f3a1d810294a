// SPDX-License-Identifier: GPL-3.0-or-later
//! Logic: switches, lamps, relays tried by hand, every single fault tried by the machine.
#include <QTimer>
#include <cmath>

#include "app/document/when_seen.h"
#include "app/drawing/logic_panes.h"
#include "app/stations/page.h"
#include "app/widgets/list_table.h"
#include "core/sequence/sequence.h"

namespace kranich::app {
namespace {

//! A usual way of wiring a gear: where to start from.
struct Layout {
  const char* id;
  QString word, tip;
  LegPower power;
  SignPlace up_sign;
  bool pressure_switch, time_out;
  ReleaseKind release;

  void put(Design& d, const sequence::Times& times) const {
    Logic& l = d.logic;
    l.power = power;
    l.down_sign = SignPlace::on_lock;
    l.up_sign = up_sign;
    l.pressure_switch = pressure_switch;
    l.release = release;
    l.squat = SquatKind::one;
    l.horn = HornBy::throttle;
    l.lamps = LampSchool::greens_dark_up;
    // Half as long again as the slowest run; where that is not known it has to be entered.
    const double run = longest_run(d, times);
    if (time_out && !l.time_out.known() && std::isfinite(run))
      l.time_out = Given(std::ceil(1.5 * run), Origin::estimated);
  }
};

std::vector<Layout> layouts() {
  return {
      {"pump-switches", QObject::tr("Pump, limit switches"),
       QObject::tr(
           "One pump for all legs, stopped by the switches of both ends, a time-out and a dump valve"),
       LegPower::pump, SignPlace::on_lock, false, true, ReleaseKind::dump},
      {"pump-pressure", QObject::tr("Pump, pressure switch"),
       QObject::tr("One pump for all legs, stopped by the pressure that builds when all are at their ends"),
       LegPower::pump, SignPlace::none, true, false, ReleaseKind::dump},
      {"motors", QObject::tr("A motor for each leg"),
       QObject::tr("A motor for each leg with its own switches, a clutch to let the legs fall"),
       LegPower::motors, SignPlace::on_lock, false, true, ReleaseKind::clutch}};
}

QString legend(LampSchool school) {
  switch (school) {
    case LampSchool::none:
      return QObject::tr("No lamps: nothing tells the pilot that it is down and locked.");
    case LampSchool::greens_dark_up:
      return QObject::tr(
          "Legend: a green lamp for each leg locked down; amber while any is between its ends; all dark: "
          "up.");
    case LampSchool::greens_blue_up:
      return QObject::tr(
          "Legend: a green lamp for each leg locked down; amber while any is between its ends; blue: all "
          "up.");
    case LampSchool::one_green:
      return QObject::tr(
          "Legend: one green lamp: all locked down; amber while any is between its ends; dark: up.");
    case LampSchool::red_until_locked:
      return QObject::tr("Legend: red until all are locked down; dark means locked, or no power.");
  }
  return {};
}

class LogicPage : public StationPage {
 public:
  explicit LogicPage(Document& document) : StationPage(document, Station::logic), bench_(document) {
    const auto changed = [this] { bench_changed(); };
    board()->add(std::make_unique<CockpitPane>(document, bench_, changed), {0, 0, 0.27, 0.41});
    board()->add(std::make_unique<BenchAircraftPane>(document, bench_, false), {0.28, 0, 0.36, 0.41});
    board()->add(std::make_unique<BenchAircraftPane>(document, bench_, true), {0.64, 0, 0.36, 0.41});
    lower_[0] = board()->add(std::make_unique<WiringPane>(document, bench_, changed), lower);
    lower_[1] = board()->add(std::make_unique<FaultsPane>(document, bench_, changed), {});
    lower_[2] = board()->add(std::make_unique<StatesPane>(document, bench_, changed), {});

    auto* views = one_of(
        {{"logic-diagram", tr("Diagram")}, {"logic-faults", tr("Faults")}, {"logic-states", tr("States")}});
    connect(views, &QButtonGroup::idClicked, this, [this](int i) { show_lower(i); });

    heading(tr("Tried by hand"), tr("throw, pull, break, and watch"));
    auto* hands = new QWidget(this);
    auto* buttons = new QHBoxLayout(hands);
    buttons->setContentsMargins(0, 0, 0, 0);
    const auto hand = [&](const char* name, const QString& word, const QString& tip, auto act) {
      auto* b = new QPushButton(word, hands);
      b->setObjectName(QString::fromLatin1(name));
      b->setToolTip(tip);
      b->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
      buttons->addWidget(b);
      connect(b, &QPushButton::clicked, this, act);
      return b;
    };
    run_ = hand("logic-run", tr("Pause"), tr("Lets the machine go on by itself, or step by step"), [this] {
      goes_ = !goes_;
      bench_changed();
    });
    hand("logic-step", tr("Step"), tr("The machine's next event"), [this] {
      goes_ = false;
      bench_.trial.step();
      bench_changed();
    });
    hand("logic-rest", tr("Rest"), tr("Down, on the ground, nothing broken"), [this] {
      bench_.trial.rest();
      bench_changed();
    });
    put(hands);
    happened_ = remark();
    happened_->setObjectName("logic-happened");
    add_findings(tr("What the faults do"));

    heading(tr("Wired so"));
    auto* from = new QWidget(this);
    auto* all = new QVBoxLayout(from);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(3);
    for (const auto& l : layouts()) {
      auto* b = new QPushButton(l.word, from);
      b->setObjectName(QStringLiteral("logic-layout-%1").arg(QString::fromLatin1(l.id)));
      b->setToolTip(l.tip);
      all->addWidget(b);
      connect(b, &QPushButton::clicked, this, [this, l] {
        document_.edit(tr("wiring: %1").arg(l.word),
                       [&](Design& d) { l.put(d, document_.assessment().times); });
      });
    }
    put(from);
    choice("/logic/power", tr("Legs are moved by"));
    choice("/logic/down_switch", tr("Down is told by a switch"));
    choice("/logic/up_switch", tr("Up is told by a switch"));
    choice("/logic/switches", tr("Switches are"));
    put(new FlagRow(document_, "/logic/plastic_mounts", tr("Held by printed or glued mounts"), this));
    choice("/logic/squat", tr("Squat switch"));
    put(new FlagRow(document_, "/logic/pressure_switch", tr("A pressure switch stops the pump"), this));
    field("/logic/time_out_s");
    put(new FlagRow(document_, "/logic/breaker_trips", tr("The motor's breaker trips when it stalls"), this));
    choice("/logic/release", tr("Without power it falls by"));
    choice("/logic/door_order", tr("Doors and legs follow"));
    put(new FlagRow(document_, "/logic/door_pairs", tr("Two open switches on each door, in series"), this));
    choice("/logic/lamps", tr("Lamps"));
    legend_ = remark();
    legend_->setObjectName("logic-legend");
    put(new FlagRow(document_, "/logic/signals_apart", tr("Lamps and horn on a breaker of their own"), this));
    choice("/logic/horn", tr("Horn when not down and"));
    field("/logic/throttle_back");
    heading(tr("Pairs of faults"), tr("on demand: it takes its time"));
    pairs_ = button(tr("Try every pair of faults"), tr("Two parts broken in any order; may be called off"));
    pairs_->setObjectName("logic-pairs");
    pairs_say_ = remark();
    pairs_say_->setObjectName("logic-pairs-say");
    connect(pairs_, &QPushButton::clicked, this, [this] { try_pairs(); });
    put(
        remark(tr("What a proof covers: contacts, relays, motors, locks, doors and legs as they are wired "
                  "here, in any order. "
                  "What it does not: times and voltages (Sequence and Circuit), mechanics beyond the four "
                  "places of a leg, the "
                  "signals' own breaker, two things broken at once. Build the circuit on the table first, "
                  "with lamps for the "
                  "motors, and go through the table of states; then on jacks, hands out, a second person on "
                  "the switch.")));
    finish();

    ticker_.setInterval(450);
    connect(&ticker_, &QTimer::timeout, this, [this] {
      if (!bench_.trial.step()) {
        ticker_.stop();
        return;
      }
      show_bench();
    });
    connect(findings(), &FindingList::chosen_changed, this, [this] { replay_chosen(); });
    connect(&document_, &Document::proof_got_on, this, [this] { board()->update(); });
    connect(&pairs_work_, &Background::got_on, this, [this] { say_pairs(); });
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed);
    refresh();
  }

 private:
  static constexpr QRectF lower{0, 0.42, 1, 0.58};

  void show_lower(int which) {
    for (int i = 0; i < 3; ++i) board()->set_share(lower_[i], i == which ? lower : QRectF());
    board()->update();
  }
  void refresh() {
    bench_.follow();
    legend_->setText(legend(document_.design().logic.lamps));
    pairs_->setEnabled(bench_.wiring() != nullptr);
    bench_changed();
  }
  //! The machine goes on by itself after whatever was done, until it rests.
  void bench_changed() {
    run_->setText(goes_ ? tr("Pause") : tr("Go on"));
    if (goes_ && bench_.wiring())
      ticker_.start();
    else
      ticker_.stop();
    show_bench();
  }
  void show_bench() {
    QStringList last;
    const auto& h = bench_.trial.happened();
    for (size_t i = h.size() > 7 ? h.size() - 7 : 0; i < h.size(); ++i)
      last << QStringLiteral("%1. %2").arg(i + 1).arg(QString::fromStdString(h[i]));
    if (!bench_.trial.to_come().empty())
      last << tr("… then %1").arg(QString::fromStdString(bench_.trial.to_come().front()));
    if (last.isEmpty() && bench_.wiring()) last << tr("At rest: down, on the ground, nothing broken.");
    QStringList legs;
    for (const auto& w : bench_.fitted().legs)
      if (bench_.wiring())
        legs << tr("%1: %2").arg(QString::fromStdString(w.word),
                                 QString::fromStdString(bench_.trial.value(logic::leg_variable(w))));
    happened_->setText((last << legs.join(QStringLiteral(", "))).join('\n'));
    board()->update();
  }
  //! The shortest way to what a chosen finding says.
  void replay_chosen() {
    const Finding* f = findings()->chosen_finding();
    const logic::Proof* proof = bench_.proof();
    if (!f || !proof) return;
    for (int i = 0; i < logic::rule_count; ++i) {
      const auto rule = static_cast<logic::Rule>(i);
      const logic::Outcome* outcome = nullptr;
      if (f->measure_id != measure_of(rule) || !proof->first(rule, &outcome)) continue;
      bench_.trial.replay(outcome->run);
      goes_ = true;
      bench_changed();
    }
  }
  void try_pairs() {
    if (pairs_work_.running()) {
      pairs_work_.cancel();
      pairs_->setText(tr("Try every pair of faults"));
      pairs_say_->setText(tr("called off"));
      return;
    }
    pairs_->setText(tr("Call it off"));
    pairs_work_.start<logic::Proof>(
        [fitted = bench_.fitted()](const Progress& progress) { return logic::prove_pairs(fitted, progress); },
        [this](const logic::Proof& proof) {
          pairs_->setText(tr("Try every pair of faults"));
          QStringList lines;
          lines << tr("%1 pairs, %2 states%3.")
                       .arg(proof.runs.size())
                       .arg(proof.states)
                       .arg(proof.complete ? QString() : tr(", not complete"));
          for (int i = 0; i < logic::rule_count; ++i) {
            const auto rule = static_cast<logic::Rule>(i);
            const logic::Outcome* outcome = nullptr;
            const auto* run = proof.first(rule, &outcome);
            if (run)
              lines << tr("%1: %2 pairs, such as: %3")
                           .arg(rule_word(rule))
                           .arg(proof.violated(rule))
                           .arg(QString::fromStdString(run->fault));
          }
          pairs_say_->setText(lines.join('\n'));
        });
    say_pairs();
  }
  void say_pairs() {
    if (pairs_work_.running()) pairs_say_->setText(tr("%1 % of them").arg(qRound(100 * pairs_work_.share())));
  }

  LogicBench bench_;
  Pane* lower_[3];
  QLabel *happened_, *legend_, *pairs_say_;
  QPushButton *run_, *pairs_;
  QTimer ticker_;
  Background pairs_work_;
  bool goes_ = true;
};

}  // namespace

StationPage* make_logic_page(Document& document) { return new LogicPage(document); }

}  // namespace kranich::app
