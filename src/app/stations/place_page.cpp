// SPDX-License-Identifier: GPL-3.0-or-later
//! Place: the wheels from the side, from ahead and from above; drag them.
#include "app/drawing/panes.h"
#include "app/stations/page.h"

namespace kranich::app {
namespace {

class PlacePage : public StationPage {
 public:
  explicit PlacePage(Document& document) : StationPage(document, Station::place) {
    board()->add(std::make_unique<SidePane>(document, Overlay::place), {0, 0, 1, 0.56});
    board()->add(std::make_unique<FrontPane>(document), {0, 0.56, 0.48, 0.44});
    board()->add(std::make_unique<PlanPane>(document), {0.48, 0.56, 0.52, 0.44});
    heading(tr("Main wheels"), tr("starboard = port"));
    field("/gear/main/axle/x_m", tr("Axle station"));
    field("/gear/main/axle/y_m", tr("Wheel from the centre line"));
    width_ = remark();
    field("/gear/main/axle/z_m", tr("Axle waterline, extended"));
    field("/gear/main/wheel/diameter_m", tr("Wheel diameter"));
    field("/gear/main/wheel/width_m", tr("Wheel width"));
    third_ = heading(tr("Nose wheel"));
    field("/gear/third/axle/x_m", tr("Axle station"));
    field("/gear/third/axle/z_m", tr("Axle waterline, extended"));
    field("/gear/third/wheel/diameter_m", tr("Wheel diameter"));
    choice("/purpose/field", tr("Flown from"));
    choice("/gear/arrangement", tr("Arrangement"));
    add_findings(tr("What it does"));
    finish();
    connect(&document_, &Document::changed, this, &PlacePage::refresh);
    refresh();
  }

 private:
  void refresh() {
    const Design& d = document_.design();
    third_->setText(d.is_tricycle() ? tr("<b>Nose wheel</b>") : tr("<b>Tail wheel</b>"));
    const auto say = [&](double v) {
      return QString::fromStdString(format_quantity(v, Kind::length, document_.units()));
    };
    const double y = d.gear.main.axle.y;
    width_->setText(tr("track %1 · overall width over the axle tips %2")
                        .arg(say(2 * y), say(2 * (y + d.gear.main.axle_beyond_wheel))));
  }
  QLabel* width_;
  QLabel* third_;
};

}  // namespace

StationPage* make_place_page(Document& document) { return new PlacePage(document); }

}  // namespace kranich::app
