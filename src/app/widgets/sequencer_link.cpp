// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/sequencer_link.h"

#include <QFileDialog>
#include <QGridLayout>
#include <cmath>

#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/findings.h"
#include "core/io/project_file.h"
#include "core/io/sequence_table.h"

namespace kranich::app {

SequencerLink::SequencerLink(Document& document, Playback& playback, QWidget* parent)
    : QWidget(parent), document_(document), playback_(playback) {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(6);
  grid->setVerticalSpacing(4);
  const auto button = [&](const char* name, const QString& text, const QString& tip) {
    auto* b = new QPushButton(text, this);
    b->setObjectName(name);
    b->setToolTip(tip);
    return b;
  };
  auto* csv = button("sequence-csv", tr("Table …"),
                     tr("Every movement with channel, start, duration, end and direction, as CSV"));
  auto* json = button("sequence-json", tr("JSON …"), tr("The same for a sequencer that reads JSON"));
  auto* wiring = button("sequence-wiring", tr("Wiring …"),
                        tr("What hangs on which output, and what starts each box, as CSV"));
  grid->addWidget(csv, 0, 0);
  grid->addWidget(json, 0, 1);
  grid->addWidget(wiring, 0, 2);
  auto* card = new QLabel(tr("The card to print stands among the sheets."), this);
  card->setFont(text_font(8));
  grid->addWidget(card, 1, 0, 1, 3);
  line_ = new QLineEdit(this);
  line_->setObjectName("sequencer-device");
  line_->setAccessibleName(tr("Serial line of the sequencer"));
  line_->setPlaceholderText(tr("serial line, /dev/ttyUSB0"));
  auto* connect_to = button("sequencer-connect", tr("Connect"), tr("Listens to a sequencer on this line"));
  grid->addWidget(line_, 2, 0, 1, 2);
  grid->addWidget(connect_to, 2, 2);
  how_ = new QComboBox(this);
  how_->setObjectName("sequencer-how");
  how_->setAccessibleName(tr("How the simulated actors move"));
  how_->addItems({tr("all in their time"), tr("all at their slowest"), tr("legs slowest, doors fastest")});
  auto* simulated =
      button("sequencer-simulate", tr("Simulated"), tr("Starts a stand-in whose actors move so"));
  grid->addWidget(how_, 3, 0, 1, 2);
  grid->addWidget(simulated, 3, 2);
  play_ = button("sequencer-play", tr("Send and play there"),
                 tr("Sends the steps and plays the way that is shown"));
  play_->setEnabled(false);
  grid->addWidget(play_, 4, 0, 1, 3);
  state_ = new QLabel(tr("no sequencer connected"), this);
  state_->setObjectName("sequencer-state");
  state_->setTextFormat(Qt::PlainText);
  state_->setWordWrap(true);
  grid->addWidget(state_, 5, 0, 1, 3);
  against_ = new QLabel(this);
  against_->setObjectName("sequencer-answer");
  against_->setTextFormat(Qt::PlainText);
  against_->setWordWrap(true);
  against_->hide();
  grid->addWidget(against_, 6, 0, 1, 3);

  const auto writes = [&](QPushButton* b, Out what, const QString& title, const QString& name,
                          const QString& filter) {
    connect(b, &QPushButton::clicked, this, [this, what, title, name, filter] {
      const QString file = QFileDialog::getSaveFileName(this, title, name, filter);
      if (!file.isEmpty()) write(what, file);
    });
  };
  writes(csv, Out::table, tr("Sequence as a table"), "sequence.csv", tr("Tables (*.csv)"));
  writes(json, Out::json, tr("Sequence as JSON"), "sequence.json", tr("JSON (*.json)"));
  writes(wiring, Out::wiring, tr("Wiring list"), "wiring.csv", tr("Tables (*.csv)"));
  connect(connect_to, &QPushButton::clicked, this, [this] { device_.open(line_->text()); });
  connect(line_, &QLineEdit::returnPressed, this, [this] { device_.open(line_->text()); });
  connect(simulated, &QPushButton::clicked, this, &SequencerLink::simulate);
  connect(play_, &QPushButton::clicked, this, &SequencerLink::play);
  connect(&device_, &BenchDevice::opened, this, [this](const QString& path) {
    line_->setText(path);
    heard_ = false;
    state_->setText(tr("listening to %1").arg(path));
  });
  connect(&device_, &BenchDevice::line, this, [this](const BenchLine& l) { heard(l); });
  connect(&device_, &BenchDevice::trouble, this, &SequencerLink::forget);
  connect(&device_, &BenchDevice::lost, this, &SequencerLink::forget);
}

sequence::Plan SequencerLink::plan() const {
  std::vector<Text> problems;
  return sequence::plan_of(document_.design(), document_.assessment().times, problems);
}

void SequencerLink::write(Out what, const QString& file) {
  const Design& d = document_.design();
  const std::string text = what == Out::table  ? sequence_csv(d, plan())
                           : what == Out::json ? sequence_json(d, plan())
                                               : wiring_csv(d);
  const auto why = write_file_atomically(file.toStdString(), text);
  state_->setText(why ? tr("%1: %2").arg(file, QString::fromStdString(*why)) : tr("written to %1").arg(file));
}

void SequencerLink::simulate() {
  // The stand-in knows actors by number only: how fast each is, is told here.
  const Design& d = document_.design();
  const auto actors = sequence::numbered_actors(plan());
  QStringList arguments{"sequencer"};
  for (size_t i = 0; i < actors.size(); ++i) {
    double factor = std::nan("");
    // The stand-in has one factor for both ways: of a leg the greater.
    const auto* takes = sequence::times_of(document_.assessment().times, actors[i]);
    if (takes) factor = std::fmax(takes->up.counted.slowest, takes->down.counted.slowest);
    for (const Door& door : d.doors)
      if (door.id == actors[i]) factor = how_->currentIndex() == 1 ? door.slowest.si : door.fastest.si;
    if (how_->currentIndex() > 0 && std::isfinite(factor))
      arguments << "--slow" << QStringLiteral("%1=%2").arg(i).arg(factor);
  }
  state_->setText(tr("starting the stand-in …"));
  device_.simulate(arguments);
}

void SequencerLink::play() {
  sent_ = plan();
  up_ = playback_.up;
  answers_.clear();
  against_->hide();
  for (const BenchLine& l : sequencer_lines(sent_)) device_.send(l);
  device_.send({"PLAY", {{"way", up_ ? 1.0 : 0.0}}});
  waiting_ = true;
  under_way_ = false;
  emit answer_changed();
}

void SequencerLink::heard(const BenchLine& l) {
  play_->setEnabled(true);
  const auto number = [&](std::string_view name) { return l.field(name).value_or(std::nan("")); };
  const double steps = static_cast<double>(sent_.up.size() + sent_.down.size());
  if (!waiting_) {
    if (!heard_) state_->setText(tr("connected; nothing played yet"));
    heard_ = true;
    return;
  }
  if (number("refused") > 0) {
    waiting_ = false;
    state_->setText(tr("the sequencer refused a line"));
    return;
  }
  // What it said before it had the steps and was told to play is none of this way.
  if (!under_way_ && !(number("steps") == steps && number("end") == 0)) return;
  under_way_ = true;
  sequence::Answer a{number("t"), {}};
  for (const auto& [name, value] : l.fields)
    if (name.size() > 1 && name[0] == 'a' && std::isdigit(static_cast<unsigned char>(name[1])))
      a.at[std::stoi(name.substr(1))] = value;
  if (std::isfinite(a.t) && (answers_.empty() || a.t >= answers_.back().t)) answers_.push_back(std::move(a));
  const bool ended = number("end") > 0.5;
  state_->setText(ended ? tr("played")
                        : tr("playing, %1 s").arg(figure(answers_.empty() ? 0 : answers_.back().t, 1)));
  if (ended) {
    // Nothing moves any more: what arrived with this answer stands.
    if (!answers_.empty()) answers_.push_back(answers_.back());
    waiting_ = under_way_ = false;
    compare();
  }
  emit answer_changed();
}

void SequencerLink::compare() {
  const Design& d = document_.design();
  QStringList lines;
  for (const Text& t : sequence::against_plan(d, sent_, up_, answers_))
    lines << text_of(t, document_.units());
  against_->setText(lines.isEmpty() ? tr("✓ all as planned, within the spread") : "▲ " + lines.join("\n▲ "));
  against_->show();
}

void SequencerLink::forget(const QString& why) {
  waiting_ = under_way_ = false;
  play_->setEnabled(false);
  state_->setText(why);
}

std::vector<std::pair<std::string, sequence::AnsweredMove>> SequencerLink::answered() const {
  std::vector<std::pair<std::string, sequence::AnsweredMove>> list;
  if (up_ != playback_.up) return list;
  const auto actors = sequence::numbered_actors(sent_);
  for (const auto& m : sequence::moves_in(answers_))
    if (m.actor >= 0 && static_cast<size_t>(m.actor) < actors.size())
      list.emplace_back(actors[static_cast<size_t>(m.actor)], m);
  return list;
}

}  // namespace kranich::app
