// SPDX-License-Identifier: GPL-3.0-or-later
#include <QDialog>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <array>
#include <cmath>
#include <deque>

#include "app/theme.h"
#include "app/widgets/bench_device.h"
#include "app/widgets/dialogs.h"
#include "core/model/describe.h"

namespace kranich::app {
namespace {

constexpr std::array<const char*, 3> scale_names{"third", "port", "starboard"};

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
    simulate->setToolTip(
        QObject::tr("Starts three scales that carry what the ledger says, with noise and drift"));
    line->addWidget(new QLabel(QObject::tr("Serial line"), this));
    line->addWidget(device_, 1);
    line->addWidget(connect_button);
    line->addWidget(simulate);
    all->addLayout(line);
    auto* grid = new QGridLayout;
    const char* titles[] = {"nose or tail", "port main", "starboard main"};
    for (int i = 0; i < 3; ++i) {
      grid->addWidget(new QLabel(QObject::tr(titles[i]), this), 0, i, Qt::AlignHCenter);
      readings_[static_cast<size_t>(i)] = new QLabel(QStringLiteral("–"), this);
      readings_[static_cast<size_t>(i)]->setObjectName(
          QStringLiteral("scale:%1").arg(scale_names[static_cast<size_t>(i)]));
      readings_[static_cast<size_t>(i)]->setFont(figure_font(22, true));
      readings_[static_cast<size_t>(i)]->setAlignment(Qt::AlignCenter);
      grid->addWidget(readings_[static_cast<size_t>(i)], 1, i);
    }
    all->addLayout(grid);
    state_ = new QLabel(QObject::tr("not connected"), this);
    state_->setObjectName("scales-state");
    state_->setWordWrap(true);
    all->addWidget(state_);
    auto* buttons = new QHBoxLayout;
    take_level_ = new QPushButton(QObject::tr("Take as level reading"), this);
    take_level_->setObjectName("scales-take-level");
    take_tilted_ = new QPushButton(QObject::tr("Take third scale as tilted reading"), this);
    take_tilted_->setObjectName("scales-take-tilted");
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
      for (auto& r : recent_) r.clear();
      state_->setText(QObject::tr("listening to %1").arg(path));
    });
  }

 private:
  void start_simulation() {
    // What the ledger says stands on the scales, shared out as Stance does.
    const LoadingState* loading = document_.assessment().find(document_.design().weighing.loading);
    if (!loading || !loading->rest) loading = document_.loading();
    QStringList arguments{"scales"};
    if (loading && loading->rest)
      for (size_t i = 0; i < 3; ++i)
        arguments << QStringLiteral("--%1").arg(scale_names[i])
                  << QString::number(load_on(i, *loading->rest) / standard_gravity, 'f', 3);
    scales_.simulate(arguments);
  }

  //! What stands on a scale: nose or tail leg, or the mains of a side.
  double load_on(size_t scale, const stance::Rest& rest) const {
    const Design& d = document_.design();
    const auto placed = placed_legs(d.gear);
    double sum = 0;
    for (size_t i = 0; i < placed.size(); ++i) {
      const Leg& leg = d.gear.legs[placed[i].row];
      const bool third = leg.role == LegRole::nose || leg.role == LegRole::tail;
      const size_t on = third ? 0 : placed[i].port ? 1 : 2;
      if (on == scale) sum += rest.wheels[i].load;
    }
    return sum;
  }

  //! The scales say nothing any more: what they last said is not what stands on them now.
  void forget(const QString& why) {
    steady_ = false;
    for (auto& r : recent_) r.clear();
    for (auto* label : readings_) label->setText(QStringLiteral("–"));
    take_level_->setEnabled(false);
    take_tilted_->setEnabled(false);
    state_->setText(why);
  }

  void read(const BenchLine& line) {
    // What they said on their way to rest is shown, and never averaged into what is taken.
    if (!steady_)
      for (auto& r : recent_) r.clear();
    steady_ = line.field("steady").value_or(1) != 0;
    for (size_t i = 0; i < 3; ++i)
      if (const auto v = line.field(scale_names[i])) {
        recent_[i].push_back(*v);
        if (recent_[i].size() > 10) recent_[i].pop_front();
      }
    show();
  }

  double mean(size_t i) const {
    double sum = 0;
    for (const double v : recent_[i]) sum += v;
    return sum / static_cast<double>(recent_[i].size());
  }
  double spread(size_t i) const {
    const auto [low, high] = std::minmax_element(recent_[i].begin(), recent_[i].end());
    return *high - *low;
  }

  void show() {
    bool all = true;
    double worst = 0;
    for (size_t i = 0; i < 3; ++i) {
      if (recent_[i].empty()) {
        all = false;
        continue;
      }
      readings_[i]->setText(document_.say(mean(i), Kind::mass));
      worst = std::max(worst, spread(i));
      all = all && recent_[i].size() >= 5;
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

  void take(bool tilted) {
    const std::string state(build_state_names[static_cast<size_t>(document_.design().purpose.build_state)]);
    document_.edit(tilted ? QObject::tr("Take the tilted reading") : QObject::tr("Take the level readings"),
                   [&](Design& d) {
                     Weighing& w = d.weighing;
                     const auto given = [&](size_t i) {
                       return Given(std::round(mean(i) * 1000) / 1000, Origin::measured,
                                    std::max(0.01, spread(i) / 2));
                     };
                     if (tilted) {
                       w.tilted_third = given(0);
                       return;
                     }
                     w.third = given(0);
                     w.port = given(1);
                     w.starboard = given(2);
                     for (Given* tare : {&w.third_tare, &w.port_tare, &w.starboard_tare})
                       *tare = Given(0, Origin::measured);  // the scales take their own off
                     w.third_x = Given(d.gear.third().axle.x, Origin::plan);
                     w.main_x = Given(d.gear.main().axle.x, Origin::plan);
                     w.half_track = Given(d.gear.main().axle.y, Origin::plan);
                     w.build_state = state;
                     if (w.loading.empty()) w.loading = document_.loading_name().toStdString();
                   });
  }

  Document& document_;
  QLineEdit* device_;
  std::array<QLabel*, 3> readings_{};
  QLabel* state_;
  QPushButton* take_level_;
  QPushButton* take_tilted_;
  BenchDevice scales_{QStringLiteral("SCALES")};
  std::array<std::deque<double>, 3> recent_;
  bool steady_ = false;
};

}  // namespace

QWidget* make_scales_dialog(Document& document, QWidget* parent) {
  return new ScalesDialog(document, parent);
}

}  // namespace kranich::app
