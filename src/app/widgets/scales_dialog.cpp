// SPDX-License-Identifier: GPL-3.0-or-later
#include <QComboBox>
#include <QDialog>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <algorithm>
#include <cmath>
#include <deque>
#include <map>
#include <set>

#include "app/theme.h"
#include "app/widgets/bench_device.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/findings.h"
#include "core/assess/loading_state.h"
#include "core/model/describe.h"

namespace kranich::app {
namespace {

//! A wheel of the aircraft that may stand on a scale.
struct Standing {
  std::string key;  //!< leg's id, and its side where the leg has a twin: "main-port"
  std::string leg;
  QString word;
  Vec3 axle;
  bool at_an_end;  //!< nose or tail: what is raised to find the CG's height
};

std::vector<Standing> standing_of(const Design& d) {
  std::vector<Standing> list;
  for (const auto& placed : placed_legs(d.gear)) {
    const Leg& leg = d.gear.legs[placed.row];
    const bool pair = leg.stands == LegStands::both_sides;
    Standing s{leg.id + (pair ? placed.port ? "-port" : "-starboard" : ""),
               leg.id,
               {},
               leg.axle.vec(),
               leg.role == LegRole::nose || leg.role == LegRole::tail};
    if (placed.port) s.axle = mirrored(s.axle);
    s.word = text_of(weigh::wheel_on_side(d, leg, placed.hand()), d.units);
    list.push_back(std::move(s));
  }
  return list;
}

class ScalesDialog : public QDialog {
 public:
  ScalesDialog(Document& document, QWidget* parent) : QDialog(parent), document_(document) {
    setObjectName("scales-dialog");
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(QObject::tr("Wheel scales"));
    resize(520, 360);
    auto* all = new QVBoxLayout(this);
    auto* line = new QHBoxLayout;
    device_ = new QLineEdit(this);
    device_->setObjectName("scales-device");
    device_->setAccessibleName(QObject::tr("Device"));
    device_->setPlaceholderText(QStringLiteral("/dev/ttyUSB0"));
    auto* connect_button = new QPushButton(QObject::tr("Connect"), this);
    auto* simulate = new QPushButton(QObject::tr("Simulated set"), this);
    simulate->setObjectName("scales-simulate");
    simulate->setToolTip(QObject::tr(
        "Starts a scale under each wheel that carries what the ledger says, with noise and drift"));
    line->addWidget(new QLabel(QObject::tr("Serial line"), this));
    line->addWidget(device_, 1);
    line->addWidget(connect_button);
    line->addWidget(simulate);
    all->addLayout(line);
    auto* box = new QWidget(this);
    grid_ = new QGridLayout(box);
    grid_->setContentsMargins(0, 0, 0, 0);
    grid_->setColumnStretch(2, 1);
    all->addWidget(box);
    state_ = new QLabel(QObject::tr("not connected"), this);
    state_->setObjectName("scales-state");
    state_->setWordWrap(true);
    all->addWidget(state_);
    auto* buttons = new QHBoxLayout;
    take_level_ = new QPushButton(QObject::tr("Take as level reading"), this);
    take_level_->setObjectName("scales-take-level");
    take_tilted_ = new QPushButton(QObject::tr("Take as tilted reading"), this);
    take_tilted_->setObjectName("scales-take-tilted");
    take_tilted_->setToolTip(QObject::tr("What nose, tail or front wheels weigh now, together"));
    for (auto* b : {take_level_, take_tilted_}) {
      b->setEnabled(false);
      buttons->addWidget(b);
    }
    all->addLayout(buttons);
    auto* note = new QLabel(
        QObject::tr(
            "Level: wheels on the scales, levelling reference horizontal, brakes off, nobody aboard who is "
            "not in the loading. Tilted: legs blocked, wheels free to roll, at least 5°, better 10–15°; a "
            "helper at the raised end."),
        this);
    note->setWordWrap(true);
    note->setFont(text_font(8));
    all->addWidget(note);
    all->addStretch(1);
    QObject::connect(connect_button, &QPushButton::clicked, this, [this] { scales_.open(device_->text()); });
    QObject::connect(device_, &QLineEdit::returnPressed, this, [this] { scales_.open(device_->text()); });
    QObject::connect(simulate, &QPushButton::clicked, this, [this] { start_simulation(); });
    QObject::connect(take_level_, &QPushButton::clicked, this, [this] { take(false); });
    QObject::connect(take_tilted_, &QPushButton::clicked, this, [this] { take(true); });
    QObject::connect(&scales_, &BenchDevice::line, this, [this](const BenchLine& l) { read(l); });
    QObject::connect(&scales_, &BenchDevice::trouble, this, [this](const QString& why) { forget(why); });
    QObject::connect(&scales_, &BenchDevice::lost, this, [this](const QString& why) { forget(why); });
    QObject::connect(&scales_, &BenchDevice::opened, this, [this](const QString& path) {
      device_->setText(path);
      clear_channels();
      state_->setText(QObject::tr("listening to %1").arg(path));
    });
  }

 private:
  void start_simulation() {
    // What the ledger says stands on the scales, shared out as Stance does.
    const LoadingState* loading = document_.assessment().find(document_.design().weighing.loading);
    if (!loading || !loading->rest) loading = document_.loading();
    QStringList arguments{"scales"};
    const auto wheels = standing_of(document_.design());
    if (loading && loading->rest)
      for (size_t i = 0; i < wheels.size(); ++i)
        arguments << "--on"
                  << QStringLiteral("%1=%2").arg(
                         QString::fromStdString(wheels[i].key),
                         QString::number(loading->rest->wheels[i].load / standard_gravity, 'f', 3));
    scales_.simulate(arguments);
  }

  //! One scale of the set: what it said last, and what stands on it.
  struct Channel {
    std::deque<double> recent;
    QLabel* reading;
    QComboBox* wheel;
    std::vector<QWidget*> widgets;
  };

  void clear_channels() {
    for (auto& [name, c] : channels_)
      for (auto* w : c.widgets) w->deleteLater();
    channels_.clear();
  }

  //! The wheel that a scale's name means: its key, or the leg or side it names.
  static int wheel_named(const std::vector<Standing>& wheels, const std::string& name) {
    for (size_t i = 0; i < wheels.size(); ++i) {
      const Standing& w = wheels[i];
      const bool main = !w.at_an_end;
      if (w.key == name || w.leg == name || (name == "third" && w.at_an_end) ||
          (main && ((name == "port" && w.axle.y() < 0) || (name == "starboard" && w.axle.y() > 0))))
        return static_cast<int>(i);
    }
    return -1;
  }

  Channel& channel(const std::string& name) {
    const auto known = channels_.find(name);
    if (known != channels_.end()) return known->second;
    const auto wheels = standing_of(document_.design());
    Channel c{{}, new QLabel(QStringLiteral("–"), this), new QComboBox(this), {}};
    const QString title = QString::fromStdString(name);
    auto* label = new QLabel(title, this);
    label->setTextFormat(Qt::PlainText);
    c.reading->setObjectName("scale:" + title);
    c.reading->setFont(figure_font(18, true));
    c.reading->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    c.reading->setMinimumWidth(150);
    c.wheel->setObjectName("scale-under:" + title);
    c.wheel->setAccessibleName(QObject::tr("What stands on scale %1").arg(title));
    c.wheel->addItem(QObject::tr("not used"));
    for (const auto& w : wheels) c.wheel->addItem(w.word, QString::fromStdString(w.key));
    int at = wheel_named(wheels, name);
    if (at < 0 && channels_.size() < wheels.size()) at = static_cast<int>(channels_.size());
    c.wheel->setCurrentIndex(at + 1);
    QObject::connect(c.wheel, &QComboBox::activated, this, [this] { show(); });
    const int row = static_cast<int>(channels_.size());
    grid_->addWidget(label, row, 0);
    grid_->addWidget(c.reading, row, 1);
    grid_->addWidget(c.wheel, row, 2);
    c.widgets = {label, c.reading, c.wheel};
    return channels_.emplace(name, std::move(c)).first->second;
  }

  //! The scales say nothing any more: what they last said is not what stands on them now.
  void forget(const QString& why) {
    steady_ = false;
    for (auto& [name, c] : channels_) {
      c.recent.clear();
      c.reading->setText(QStringLiteral("–"));
    }
    take_level_->setEnabled(false);
    take_tilted_->setEnabled(false);
    state_->setText(why);
  }

  void read(const BenchLine& line) {
    // What they said on their way to rest is shown, and never averaged into what is taken.
    if (!steady_)
      for (auto& [name, c] : channels_) c.recent.clear();
    steady_ = line.field("steady").value_or(1) != 0;
    constexpr size_t most_scales = 24;
    for (const auto& [name, value] : line.fields) {
      if (name == "steady" || (channels_.size() >= most_scales && !channels_.count(name))) continue;
      auto& recent = channel(name).recent;
      recent.push_back(value);
      if (recent.size() > 10) recent.pop_front();
    }
    show();
  }

  static double mean(const Channel& c) {
    double sum = 0;
    for (const double v : c.recent) sum += v;
    return sum / static_cast<double>(c.recent.size());
  }
  static double spread(const Channel& c) {
    const auto [low, high] = std::minmax_element(c.recent.begin(), c.recent.end());
    return *high - *low;
  }

  void show() {
    bool all = !channels_.empty();
    bool used = false;
    double worst = 0;
    std::set<QString> taken;
    bool twice = false;
    for (auto& [name, c] : channels_) {
      const QString key = c.wheel->currentData().toString();
      twice = twice || (!key.isEmpty() && !taken.insert(key).second);
      used = used || !key.isEmpty();
      if (c.recent.empty()) {
        all = false;
        continue;
      }
      c.reading->setText(document_.say(mean(c), Kind::mass));
      worst = std::max(worst, spread(c));
      all = all && c.recent.size() >= 5;
    }
    if (twice || !used) {
      take_level_->setEnabled(false);
      take_tilted_->setEnabled(false);
      state_->setText(twice ? QObject::tr("two scales under one wheel: choose another for one of them")
                            : QObject::tr("choose which wheel stands on which scale"));
      return;
    }
    const bool ready = all && steady_;
    take_level_->setEnabled(ready);
    take_tilted_->setEnabled(ready);
    state_->setText(
        QObject::tr("%1; the last ten readings spread by %2%3")
            .arg(ready ? QObject::tr("steady") : QObject::tr("settling"), document_.say(worst, Kind::mass),
                 scales_.bad_lines() ? QObject::tr("; %1 faulty lines dropped").arg(scales_.bad_lines())
                                     : QString()));
  }

  static double rounded(double kg) { return std::round(kg * 1000) / 1000; }

  //! What each scale in use says now, under the wheel that was chosen for it.
  std::vector<ScaleReading> readings(const Design& d) const {
    std::vector<ScaleReading> list;
    for (const auto& wheel : standing_of(d))
      for (const auto& [name, c] : channels_) {
        if (c.wheel->currentData().toString().toStdString() != wheel.key) continue;
        ScaleReading s;
        s.leg = wheel.leg;
        s.reading = Given(rounded(mean(c)), Origin::measured, std::max(0.01, spread(c) / 2));
        s.tare = Given(0, Origin::measured);  // the scales take their own off
        s.x = Given(wheel.axle.x(), Origin::plan);
        s.y = Given(wheel.axle.y(), Origin::plan);
        list.push_back(s);
      }
    return list;
  }

  void take(bool tilted) {
    const std::string state(build_state_names[static_cast<size_t>(document_.design().purpose.build_state)]);
    document_.edit(tilted ? QObject::tr("Take the tilted reading") : QObject::tr("Take the level readings"),
                   [&](Design& d) {
                     Weighing& w = d.weighing;
                     if (tilted) {
                       Design now = d;
                       now.weighing.scales = readings(d);
                       double off = 0;
                       for (const auto& s : now.weighing.scales) off = std::max(off, s.reading.tolerance);
                       const auto raised = weigh::on_scales(now).raised;
                       w.tilted_third = Given(rounded(raised.load), Origin::measured, raised.scales * off);
                       return;
                     }
                     w.scales = readings(d);
                     w.build_state = state;
                     if (w.loading.empty()) w.loading = document_.loading_name().toStdString();
                   });
  }

  Document& document_;
  QLineEdit* device_;
  QGridLayout* grid_;
  std::map<std::string, Channel> channels_;
  QLabel* state_;
  QPushButton* take_level_;
  QPushButton* take_tilted_;
  BenchDevice scales_{QStringLiteral("SCALES")};
  bool steady_ = false;
};

}  // namespace

QWidget* make_scales_dialog(Document& document, QWidget* parent) {
  return new ScalesDialog(document, parent);
}

}  // namespace kranich::app
