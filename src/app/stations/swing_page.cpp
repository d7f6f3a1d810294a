// SPDX-License-Identifier: GPL-3.0-or-later
//! Swing: the leg on its way into the well.
#include <map>

#include "app/document/when_seen.h"
#include "app/drawing/swing_pane.h"
#include "app/stations/page.h"
#include "app/widgets/leg_switch.h"
#include "core/assess/swing_state.h"

namespace kranich::app {
namespace {

class SwingPage : public StationPage {
 public:
  explicit SwingPage(Document& document) : StationPage(document, Station::swing) {
    auto pane = std::make_unique<SwingPane>(document);
    pane_ = pane.get();
    board()->add(std::move(pane), {0, 0, 1, 0.72});
    board()->add(std::make_unique<ClearancePane>(document, *pane_), {0.01, 0.72, 0.98, 0.27});
    switch_ = put(new LegSwitch(document_, "swing", this));
    for (const Leg& leg : document_.design().gear.legs) {
      auto* box = new QWidget(this);
      auto* lay = new QVBoxLayout(box);
      lay->setContentsMargins(0, 6, 0, 0);
      lay->setSpacing(2);
      const QString base = leg_path(leg.id);
      const auto row = [&](const char* path, const QString& title) {
        lay->addWidget(new QuantityRow(document_, base + path, title, box));
      };
      lay->addWidget(new ChoiceRow(document_, base + "retraction/direction", tr("Swings"), box));
      row("retraction/pivot/x_m", tr("Pivot station"));
      row("retraction/pivot/y_m", tr("Pivot from the centre line"));
      row("retraction/pivot/z_m", tr("Pivot waterline"));
      row("retraction/unit_angle_deg", tr("Unit angle"));
      row("retraction/mount_tilt_deg", tr("Mount tilt"));
      row("wheel_offset_m", tr("Wheel outboard of the leg"));
      row("retraction/well/clearance_m", tr("Clearance wanted"));
      row("retraction/well/low/x_m", tr("Well from station"));
      row("retraction/well/high/x_m", tr("to station"));
      row("retraction/well/low/y_m", tr("Well from, off the centre line"));
      row("retraction/well/high/y_m", tr("to, off the centre line"));
      row("retraction/well/low/z_m", tr("Well from waterline"));
      row("retraction/well/high/z_m", tr("to waterline"));
      row("retraction/tyre_growth_m", tr("Tyre growth"));
      row("retraction/side_play_m", tr("Side play"));
      put(box);
      boxes_[leg.id] = box;
    }
    heading(tr("Leg length"), tr("pivot to axle"));
    budget_ = remark();
    budget_->setObjectName("length-budget");
    add_findings(tr("What it does"));
    finish();
    connect(switch_, &LegSwitch::chosen, this, [this](const QString& id) { show_leg(id.toStdString()); });
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed);
    connect(findings(), &FindingList::chosen_changed, this, [this] {
      if (const Finding* f = findings()->chosen_finding(); f && !f->subject.leg.empty())
        show_leg(f->subject.leg);
    });
    // The leg with the least to spare is shown first.
    const LegSwing* tightest = nullptr;
    const auto spare = [](const LegSwing& s) {
      return s.least ? s.least->distance - s.input->wanted_clearance : 1e9;
    };
    for (const auto& s : document_.assessment().swings)
      if (!tightest || spare(s) < spare(*tightest)) tightest = &s;
    show_leg(tightest ? tightest->leg : LegSwitch::first(document_.design()));
  }

 private:
  void show_leg(const std::string& leg) {
    pane_->leg = leg;
    for (const auto& [id, box] : boxes_) box->setVisible(id == leg);
    switch_->show_current(leg);
    refresh();
    board()->set_share(pane_, {0, 0, 1, 0.72});
  }
  void refresh() {
    const LegSwing* r = pane_->result();
    if (!r || !r->input) {
      budget_->setText(r ? tr("needs %1").arg(text_of(r->missing, document_.units()))
                         : tr("this leg does not retract"));
      return;
    }
    if (document_.before_drag() && !isVisible()) return;
    const auto b = swing::length_budget(*r->input);
    const auto say = [&](double v) { return document_.say(v, Kind::length); };
    QString s = tr("the stance wants <b>%1</b><br>").arg(say(b.length));
    if (!std::isfinite(b.fits))
      s += tr("no length near it keeps the clearance");
    else if (b.fits < b.length)
      s += tr("the well takes <b>%1</b><br>too long by <b>%2</b>").arg(say(b.fits), say(b.length - b.fits));
    else
      s += tr("the well takes up to <b>%1</b><br>spare <b>%2</b>").arg(say(b.fits), say(b.fits - b.length));
    s += tr("<br>lean when down %1, unit and mount make %2; the unit angle that fits both: %3")
             .arg(document_.say(r->figures->down_lean, Kind::angle),
                  document_.say(r->figures->unit_down_lean, Kind::angle),
                  document_.say(r->figures->required_angle, Kind::angle));
    budget_->setText(s);
  }
  SwingPane* pane_;
  LegSwitch* switch_;
  std::map<std::string, QWidget*> boxes_;
  QLabel* budget_;
};

}  // namespace

StationPage* make_swing_page(Document& document) { return new SwingPage(document); }

}  // namespace kranich::app
