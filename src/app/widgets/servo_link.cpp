// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/servo_link.h"

#include <QGridLayout>
#include <QRegularExpression>
#include <cmath>

#include "app/document/journal.h"
#include "app/document/when_seen.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/findings.h"
#include "core/assess/drive_state.h"
#include "core/io/project_file.h"

namespace kranich::app {
namespace {
//! So long it must have stood still to be taken as resting, ms.
constexpr int rest_ms = 250;
//! By which an end that binds is pulled back at a time, per cent.
constexpr double step_back = 1;
//! Share of the unit's way within which it has got there: what a dead centre turns back.
constexpr double at_its_end = 0.015;
}  // namespace

ServoLink::ServoLink(Document& document, std::string leg, QWidget* parent)
    : QWidget(parent), document_(document), leg_(std::move(leg)) {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(6);
  grid->setVerticalSpacing(4);
  const QString id = QString::fromStdString(leg_);
  const auto button = [&](const char* name, const QString& text, const QString& tip) {
    auto* b = new QPushButton(text, this);
    b->setObjectName(QString::fromLatin1(name) + ":" + id);
    b->setToolTip(tip);
    return b;
  };
  line_ = new QLineEdit(this);
  line_->setObjectName("servo-device:" + id);
  line_->setAccessibleName(tr("Serial line of the servo tester"));
  line_->setPlaceholderText(tr("serial line, /dev/ttyUSB0"));
  auto* connect_to = button("servo-connect", tr("Connect"), tr("Listens to a servo tester on this line"));
  grid->addWidget(line_, 0, 0);
  grid->addWidget(connect_to, 0, 1);
  how_ = new QComboBox(this);
  how_->setObjectName("servo-how:" + id);
  how_->setAccessibleName(tr("How the simulated unit is built"));
  how_->addItems({tr("unit as drawn"), tr("stop down 3° early"), tr("stop stowed 3° early")});
  auto* simulated = button("servo-simulate", tr("Simulated"), tr("Starts a stand-in with such a unit"));
  grid->addWidget(how_, 1, 0);
  grid->addWidget(simulated, 1, 1);
  down_ = button("servo-down", tr("Down end"), tr("Sends the end point of the design"));
  middle_ = button("servo-middle", tr("Middle"), tr("Servo arm to neutral"));
  stowed_ = button("servo-stowed", tr("Stowed end"), tr("Sends the end point of the design"));
  grid->addWidget(down_, 2, 0);
  grid->addWidget(stowed_, 2, 1);
  grid->addWidget(middle_, 3, 0);
  percent_ = new QLineEdit(this);
  percent_->setObjectName("servo-percent:" + id);
  percent_->setAccessibleName(tr("Send to, per cent"));
  percent_->setPlaceholderText(tr("or to, %"));
  back_ = button("servo-back", tr("Back till it rests"),
                 tr("Pulls the end back by one per cent at a time until the servo no longer binds"));
  grid->addWidget(percent_, 3, 1);
  grid->addWidget(back_, 4, 0, 1, 2);
  state_ = new QLabel(tr("no servo tester connected"), this);
  state_->setObjectName("servo-state:" + id);
  found_ = new QLabel(this);
  found_->setObjectName("servo-found:" + id);
  for (QLabel* l : {state_, found_}) {
    l->setTextFormat(Qt::PlainText);
    l->setWordWrap(true);
  }
  found_->hide();
  grid->addWidget(state_, 5, 0, 1, 2);
  grid->addWidget(found_, 6, 0, 1, 2);
  write_ = button("servo-write", tr("Write into the Book"), tr("What was found at both ends, as a note"));
  write_->hide();
  grid->addWidget(write_, 7, 0, 1, 2);
  rests_.setSingleShot(true);
  rests_.setInterval(rest_ms);

  connect(connect_to, &QPushButton::clicked, this, [this] { device_.open(line_->text()); });
  connect(line_, &QLineEdit::returnPressed, this, [this] { device_.open(line_->text()); });
  connect(simulated, &QPushButton::clicked, this, &ServoLink::simulate);
  const auto end = [this](End e) {
    const Leg* of = document_.design().gear.find(leg_);
    if (!of) return;  // taken out of the design meanwhile
    const auto made = tested_unit(*of);
    if (const auto* unit = std::get_if<drive::TestedUnit>(&made)) go(drive::end_point(*unit, e == stowed), e);
  };
  connect(down_, &QPushButton::clicked, this, [end] { end(down); });
  connect(stowed_, &QPushButton::clicked, this, [end] { end(stowed); });
  connect(middle_, &QPushButton::clicked, this, [this] { go(0, std::nullopt); });
  connect(percent_, &QLineEdit::returnPressed, this, [this] {
    bool good = false;
    QString typed = percent_->text().remove('%').trimmed();
    const double to = typed.replace(',', '.').replace(QChar(0x2212), '-').toDouble(&good);
    if (!good || !(std::abs(to) <= drive::furthest_sent)) {
      state_->setText(tr("“%1”: a number from −150 to 150").arg(percent_->text()));
      return;
    }
    go(to, to < 0 ? down : stowed);
  });
  connect(back_, &QPushButton::clicked, this, [this] { back_off(); });
  connect(write_, &QPushButton::clicked, this, &ServoLink::write_down);
  connect(&rests_, &QTimer::timeout, this, &ServoLink::tell);
  connect(&device_, &BenchDevice::opened, this, [this](const QString& path) {
    line_->setText(path);
    said_ = false;
    state_->setText(tr("listening to %1").arg(path));
  });
  connect(&device_, &BenchDevice::line, this, [this](const BenchLine& l) { heard(l); });
  connect(&device_, &BenchDevice::trouble, this, &ServoLink::forget);
  connect(&device_, &BenchDevice::lost, this, &ServoLink::forget);
  refresh_when_seen(
      this, &document_, [this] { refresh(); }, &Document::changed);
  refresh();
}

QString ServoLink::percent(double value) const {
  return QStringLiteral("%1%2 %")
      .arg(value < 0 ? QString(QChar(0x2212)) : QString())
      .arg(figure(std::abs(value), 1));
}

void ServoLink::refresh() {
  const Leg* leg = document_.design().gear.find(leg_);
  if (!leg) return;
  const auto made = tested_unit(*leg);
  const auto* unit = std::get_if<drive::TestedUnit>(&made);
  for (auto* b : {down_, middle_, stowed_, back_}) b->setEnabled(unit && said_);
  back_->setEnabled(unit && said_ && towards_ && ends_[*towards_] && ends_[*towards_]->binds);
  percent_->setEnabled(unit && said_);
  down_->setText(unit ? tr("Down, %1").arg(percent(drive::end_point(*unit, false))) : tr("Down end"));
  stowed_->setText(unit ? tr("Stowed, %1").arg(percent(drive::end_point(*unit, true))) : tr("Stowed end"));
  if (const auto* missing = std::get_if<Text>(&made); missing && !device_.is_open())
    state_->setText(tr("needs %1").arg(text_of(*missing, document_.units())));
  else if (!device_.is_open() && !said_)
    state_->setText(tr("no servo tester connected"));
}

void ServoLink::simulate() {
  // The stand-in takes the design as it is now, saved or not.
  handed_ = std::make_unique<QTemporaryDir>();
  const QString file = handed_->filePath("tested.kranich");
  if (const auto why = save_project(document_.design(), file.toStdString())) {
    state_->setText(QString::fromStdString(*why));
    return;
  }
  ends_ = {};  // another one
  found_->hide();
  write_->hide();
  said_ = false;
  refresh();
  state_->setText(tr("starting the stand-in …"));
  QStringList arguments{"servo", "--project", file, "--leg", QString::fromStdString(leg_)};
  if (how_->currentIndex() == 1)
    arguments << "--down-early"
              << "3";
  if (how_->currentIndex() == 2)
    arguments << "--stowed-early"
              << "3";
  device_.simulate(arguments);
}

void ServoLink::go(double to, std::optional<End> towards) {
  backing_ = false;
  sent_ = to;
  towards_ = towards;
  device_.send({"GO", {{"to", to}}});
  rests_.stop();
}

void ServoLink::back_off() {
  go(sent_ + (sent_ < 0 ? step_back : -step_back), towards_);
  backing_ = true;
}

void ServoLink::heard(const BenchLine& l) {
  const auto number = [&](std::string_view name) { return l.field(name).value_or(std::nan("")); };
  const bool first = !said_;
  said_ = true;
  last_ = l;
  if (first) refresh();
  const bool moves = number("moves") > 0.5;
  const bool binds = number("binds") > 0.5;
  state_->setText(tr("at %1, unit %2 of its way, %3%4")
                      .arg(percent(number("at")), figure(100 * number("unit"), 0) + " %",
                           document_.say(number("current"), Kind::current),
                           moves   ? tr(": on its way")
                           : binds ? tr(": binds, and draws that as long as it is on")
                                   : QString()));
  // It has the command, and stands still.
  const bool there = std::abs(number("to") - sent_) < 0.02 && !moves;
  if (!there)
    rests_.stop();
  else if (towards_ && !rests_.isActive())
    rests_.start();
}

void ServoLink::tell() {
  if (!last_ || !towards_) return;
  const auto number = [&](std::string_view name) { return last_->field(name).value_or(std::nan("")); };
  const bool binds = number("binds") > 0.5;
  auto& end = ends_[*towards_];
  if (backing_ && end) {
    if (binds && std::abs(sent_) > step_back) return back_off();
    backing_ = false;
    if (!binds) end->rests_at = sent_;
  } else {
    end = Found{sent_, number("current"), number("unit"), binds, {}};
  }
  towards_.reset();  // told once
  QStringList lines;
  for (const End e : {down, stowed}) {
    const auto& f = ends_[e];
    if (!f) continue;
    const QString name = e == down ? tr("down") : tr("stowed");
    const QString there = figure(100 * f->unit, 0) + " %";
    const bool short_of = std::abs(f->unit - (e == down ? 0 : 1)) > at_its_end;
    if (!f->binds && short_of)
      lines
          << tr("▲ %1: rests at %2, but the unit stands at %3 of its way: its stop holds it, and the rod is "
                "sprung by the rest; free the stop, or make the rod shorter or longer by that")
                 .arg(name, percent(f->sent), there);
    else if (!f->binds)
      lines << tr("✓ %1: rests at %2, unit %3 of its way, %4")
                   .arg(name, percent(f->sent), there, document_.say(f->current, Kind::current));
    else if (!f->rests_at)
      lines << tr("▲ %1: binds at %2, unit %3 of its way, %4")
                   .arg(name, percent(f->sent), there, document_.say(f->current, Kind::current));
    else
      lines << tr("▲ %1: binds at %2 with %3; rests from %4 on: set that end there, or free the unit's stop")
                   .arg(name, percent(f->sent), document_.say(f->current, Kind::current),
                        percent(*f->rests_at));
    if (f->binds && !f->rests_at && (sent_ < 0) == (e == down)) towards_ = e;  // may be pulled back
  }
  found_->setText(lines.join('\n'));
  found_->show();
  write_->setVisible(ends_[down] || ends_[stowed]);
  refresh();
}

void ServoLink::write_down() {
  Journal& journal = document_.journal();
  tasks::Entry entry = journal.begun(tasks::Mark::note);
  const Leg* leg = document_.design().gear.find(leg_);
  entry.note = tr("Servo tester, %1: %2")
                   .arg(leg ? text_of(document_.design().leg_word(*leg), document_.units()) : QString(),
                        found_->text().remove(QRegularExpression("[✓▲] ")).replace('\n', "; "))
                   .toStdString();
  const auto why = journal.write(std::move(entry));
  state_->setText(why ? *why : tr("written into the Book"));
}

void ServoLink::forget(const QString& why) {
  said_ = false;
  towards_.reset();
  backing_ = false;
  rests_.stop();
  refresh();
  state_->setText(why);
}

}  // namespace kranich::app
