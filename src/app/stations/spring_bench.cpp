// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/spring_bench.h"

#include <QDate>
#include <QFile>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QTemporaryFile>
#include <QVBoxLayout>
#include <cmath>

#include "app/document/when_seen.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/bench_device.h"
#include "app/widgets/findings.h"
#include "app/widgets/list_table.h"
#include "core/assess/landing_state.h"
#include "core/assess/standing.h"
#include "core/io/project_file.h"
#include "core/io/rig_csv.h"
#include "core/spring/landing.h"

namespace kranich::app {

BenchPanel::BenchPanel(Document& document, RigPane& pane, QWidget* parent)
    : QWidget(parent), document_(document), pane_(pane), rig_(new BenchDevice(QStringLiteral("RIG"), this)) {
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(10, 4, 10, 6);
  all->setSpacing(4);
  auto* line = new QHBoxLayout;
  const auto button = [&](const QString& id, const QString& text, const QString& tip, auto&& does) {
    auto* b = new QPushButton(text, this);
    b->setObjectName(id);
    b->setToolTip(tip);
    connect(b, &QPushButton::clicked, this, does);
    line->addWidget(b);
    return b;
  };
  button("rig-simulate", tr("Simulated rig"),
         tr("Drops a leg that is a little stiffer and less damped than foretold"),
         [this] { start_stand_in(); });
  auto* port = new QLineEdit(this);
  port->setObjectName("rig-device");
  port->setPlaceholderText(QStringLiteral("/dev/ttyUSB0"));
  port->setAccessibleName(tr("Serial line of a rig"));
  port->setMaximumWidth(120);
  connect(port, &QLineEdit::returnPressed, this, [this, port] { rig_->open(port->text()); });
  line->addWidget(port);
  button("rig-file", tr("Recording from a file …"), tr("Columns t_s, acceleration_m_per_s2, stroke_m"),
         [this] { read_file(); });
  take_ = button("rig-take", tr("Take over what fits"),
                 tr("Changes spring and damping of this leg to what was measured; Ctrl+Z takes it back"),
                 [this] { take_over(); });
  keep_ =
      button("rig-keep", tr("Keep this drop"),
             tr("Writes the drop into the book below, beside what was foretold"), [this] { keep_drop(); });
  line->addStretch(1);
  all->addLayout(line);
  says_ = new QLabel(this);
  says_->setObjectName("rig-says");
  says_->setWordWrap(true);
  says_->setFont(text_font(8.5));
  all->addWidget(says_);
  auto* tables = new QHBoxLayout;
  tables->addWidget(new ListTable(
                        document, "/spring_bench/readings",
                        {{"leg", tr("Leg"), Refers::leg},
                         {"load_N", tr("Load")},
                         {"closure_m", tr("Closed by")},
                         {"unloading", tr("On the way out")},
                         {"state", tr("As built then")},
                         {"broke", tr("Gave way at")}},
                        [this](Design& d) {
                          d.spring_bench.readings.emplace_back();
                          d.spring_bench.readings.back().leg = leg_;
                        },
                        this),
                    2);
  tables->addWidget(new ListTable(
                        document, "/spring_bench/drops",
                        {{"leg", tr("Leg"), Refers::leg},
                         {"day", tr("Day")},
                         {"height_m", tr("From")},
                         {"mass_kg", tr("Mass")},
                         {"stroke_m", tr("Stroke")},
                         {"foretold_stroke_m", tr("foretold")},
                         {"acceleration_g", tr("Accel.")},
                         {"foretold_acceleration_g", tr("foretold")},
                         {"outcome", tr("What it did")},
                         {"state", tr("As built then")}},
                        [this](Design& d) {
                          d.spring_bench.drops.emplace_back();
                          d.spring_bench.drops.back().leg = leg_;
                        },
                        this),
                    3);
  all->addLayout(tables, 1);
  connect(rig_, &BenchDevice::line, this, [this](const BenchLine& l) {
    take_sample(l.field("t").value_or(0), l.field("a").value_or(0), l.field("s").value_or(0));
    if (l.field("end").value_or(0) != 0) finish_recording();
  });
  connect(rig_, &BenchDevice::trouble, says_, &QLabel::setText);
  connect(rig_, &BenchDevice::lost, this, [this](const QString& why) {
    if (!recording_) return;  // a rig is silent between drops
    says_->setText(tr("%1 – the recording is not whole").arg(why));
  });
  connect(rig_, &BenchDevice::opened, this, [this, port](const QString& path) {
    port->setText(path);
    says_->setText(tr("listening to %1").arg(path));
  });
  refresh_when_seen(
      this, &document_, [this] { tell(); }, &Document::changed);
}

void BenchPanel::show_leg(const std::string& leg) {
  if (leg != leg_) {
    pane_.recorded.clear();
    pane_.foretold.clear();
    pane_.fitted.clear();
    fit_.reset();
  }
  leg_ = pane_.leg = leg;
  tell();
}

const spring::DropModel* BenchPanel::model() const {
  for (const auto& l : document_.assessment().landings)
    if (l.leg == leg_ && l.model) return &*l.model;
  return nullptr;
}

double BenchPanel::height() const {
  const Landing& l = document_.design().landing;
  if (l.school == School::ladder && l.ladder_height.known()) return l.ladder_height;
  for (const auto& x : document_.assessment().landings)
    if (x.leg == leg_ && std::isfinite(x.sink_speed)) return spring::drop_of_sink_speed(x.sink_speed);
  return 0.25;
}

void BenchPanel::start_stand_in() {
  QTemporaryFile file(QStringLiteral("kranich-rig-XXXXXX.kranich"));
  file.setFileTemplate(QStringLiteral("%1/kranich-rig-XXXXXX.kranich")
                           .arg(QString::fromStdString(std::filesystem::temp_directory_path().string())));
  file.setAutoRemove(false);
  if (!file.open()) {
    says_->setText(tr("no room for a temporary file: %1").arg(file.errorString()));
    return;
  }
  file.write(QByteArray::fromStdString(write_project(document_.design())));
  file.close();
  QStringList arguments{"rig",      "--project", file.fileName(), "--height", QString::number(height()),
                        "--spring", "1.12",      "--damping",     "0.85"};
  arguments << "--leg" << QString::fromStdString(leg_);
  pane_.recorded.clear();
  rig_->simulate(arguments);
  // The stand-in reads it at its start; long after, it may go.
  QTimer::singleShot(4000, this, [path = file.fileName()] { QFile::remove(path); });
}

void BenchPanel::take_sample(double t, double acceleration, double stroke) {
  if (!pane_.recorded.empty() && t <= pane_.recorded.back().t) pane_.recorded.clear();
  recording_ = true;
  pane_.recorded.push_back({t, acceleration, stroke});
}

void BenchPanel::read_file() {
  const QString path =
      QFileDialog::getOpenFileName(this, tr("Recording of a drop"), {}, tr("Tables (*.csv);;All files (*)"));
  if (path.isEmpty()) return;
  QFile file(path);
  if (!file.open(QIODevice::ReadOnly)) {
    says_->setText(tr("%1: %2").arg(path, file.errorString()));
    return;
  }
  const auto read = read_rig_csv(file.readAll().toStdString());
  if (!read.faults.empty()) {
    says_->setText(tr("%1 cannot be read; what was recorded stays. %2: %3")
                       .arg(path, text_of(read.faults.front().where), text_of(read.faults.front().what)));
    return;
  }
  pane_.recorded = read.samples;
  finish_recording();
}

void BenchPanel::finish_recording() {
  recording_ = false;
  fit_.reset();
  pane_.fitted.clear();
  tell();
  emit redraw();
}

void BenchPanel::tell() {
  if (document_.before_drag()) return;  // the fit is for when the hand rests
  const auto* m = model();
  QString s;
  if (!m) {
    s = tr("A drop needs spring, damping and masses of this leg: see the findings.");
  } else if (pane_.recorded.empty()) {
    s = tr("Drop the leg from %1 on a rig, or read a recording: it is laid over what was foretold, and what "
           "fits is offered back. "
           "Remove people and propeller, guard the sides, catch the rebound, start low, inspect after every "
           "drop.")
            .arg(document_.say(height(), Kind::length));
  } else {
    spring::DropModel bench = *m;
    bench.lift_ratio = 0;
    const double end = std::min(pane_.recorded.back().t, spring::longest_recording);
    pane_.foretold = spring::rig_record(bench, height(), 1000, end);
    const auto fit = spring::fit_drop(bench, height(), pane_.recorded);
    if (const auto* why = std::get_if<Text>(&fit)) {
      s = tr("The recording needs %1.").arg(text_of(*why, document_.units()));
      fit_.reset();
    } else {
      fit_ = std::get<spring::DropFit>(fit);
      pane_.fitted =
          spring::rig_record(spring::scaled(bench, fit_->spring, fit_->damping), height(), 1000, end);
      s = tr("<b>Spring %1 ± %2 times, damping %3 ± %4 times what was foretold.</b> Acceleration off by %5, "
             "with this by %6; stroke by %7, then %8.")
              .arg(figure(fit_->spring, 3))
              .arg(figure(fit_->spring_error, 3))
              .arg(figure(fit_->damping, 3))
              .arg(figure(fit_->damping_error, 3))
              .arg(document_.say(fit_->off_before / standard_gravity, Kind::in_g),
                   document_.say(fit_->off_after / standard_gravity, Kind::in_g),
                   document_.say(fit_->stroke_off_before, Kind::length),
                   document_.say(fit_->stroke_off_after, Kind::length));
    }
  }
  const auto readings = spring::fit_readings(document_.design().spring_bench.readings, leg_);
  if (const auto* f = std::get_if<spring::LoadFit>(&readings); f && pane_.recorded.empty())
    s +=
        tr("<br><b>On the scales</b>: rate %1%2, preload %3%4.")
            .arg(document_.say(f->rate, Kind::stiffness),
                 std::isfinite(f->rate_error) ? tr(" ± %1").arg(document_.say(f->rate_error, Kind::stiffness))
                                              : QString(),
                 document_.say(f->preload, Kind::force),
                 std::isfinite(f->friction) ? tr(", friction %1 (in and out differ: it sticks)")
                                                  .arg(document_.say(f->friction, Kind::force))
                                            : QString());
  if (!pane_.recorded.empty() && rig_->bad_lines() > 0)
    s += tr("<br>%n line(s) of the rig were faulty and are left out.", nullptr, rig_->bad_lines());
  says_->setText(s);
  take_->setEnabled(fit_ || (pane_.recorded.empty() && std::holds_alternative<spring::LoadFit>(readings)));
  keep_->setEnabled(!pane_.recorded.empty() && m);
}

void BenchPanel::take_over() {
  const auto readings = spring::fit_readings(document_.design().spring_bench.readings, leg_);
  const auto* line = std::get_if<spring::LoadFit>(&readings);
  if (!fit_ && !line) return;
  std::string why_not;
  double rate_now = std::nan("");
  if (document_.assessment().wheels)
    rate_now = (*document_.assessment().wheels)[wheel_of(document_.design(), leg_)].leg.wheel_rate(0);
  document_.edit(tr("Take over what the bench says"), [&](Design& d) {
    Leg& leg = d.gear.leg(leg_);
    why_not = fit_ ? spring::take_over(leg, *fit_) : spring::take_over(leg, *line, rate_now);
  });
  const bool damping = fit_ && std::isfinite(fit_->damping_error);
  fit_.reset();
  tell();
  if (!why_not.empty())
    says_->setText(tr("The spring stays as it is: %1.%2")
                       .arg(text_of(why_not), damping ? tr(" Its damping was taken over.") : QString()));
}

void BenchPanel::keep_drop() {
  DropTest test;
  test.leg = leg_;
  test.day = QDate::currentDate().toString(Qt::ISODate).toStdString();
  test.height = Given(height(), Origin::measured);
  const auto greatest = [](const std::vector<spring::RigSample>& list, double spring::RigSample::*of) {
    double most = 0;
    for (const auto& x : list) most = std::max(most, x.*of);
    return most;
  };
  if (const auto* m = model()) test.mass = Given(m->mass(), Origin::plan);
  test.stroke = Given(greatest(pane_.recorded, &spring::RigSample::stroke), Origin::measured);
  test.acceleration =
      Given(greatest(pane_.recorded, &spring::RigSample::acceleration) / standard_gravity, Origin::measured);
  test.foretold_stroke = Given(greatest(pane_.foretold, &spring::RigSample::stroke), Origin::plan);
  test.foretold_acceleration =
      Given(greatest(pane_.foretold, &spring::RigSample::acceleration) / standard_gravity, Origin::plan);
  document_.edit(tr("Keep the drop"), [&](Design& d) { d.spring_bench.drops.push_back(test); });
}

}  // namespace kranich::app
