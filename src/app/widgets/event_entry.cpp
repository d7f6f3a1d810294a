// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/event_entry.h"

#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>
#include <set>

#include "app/theme.h"
#include "app/widgets/findings.h"
#include "core/tasks/words.h"

namespace kranich::app {

EventEntry::EventEntry(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), journal_(document.journal()) {
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(0, 0, 0, 0);
  all->setSpacing(4);
  const auto choice = [&](const char* id, const QString& words) {
    auto* box = new QComboBox(this);
    box->setObjectName(QString::fromLatin1(id));
    box->setAccessibleName(words);
    all->addWidget(box);
    return box;
  };
  const auto line = [&](const char* id, const QString& words) {
    auto* field = new QLineEdit(this);
    field->setObjectName(QString::fromLatin1(id));
    field->setPlaceholderText(words);
    field->setAccessibleName(words);
    all->addWidget(field);
    return field;
  };
  sort_ = choice("event-sort", tr("What happened"));
  sort_->addItem(tr("A note"), QString());
  for (const auto& e : tasks::all_events()) sort_->addItem(text_of(e.words), text_of(e.name));
  leg_ = choice("event-leg", tr("To which leg"));
  failed_in_ = choice("event-failed-in", tr("In what it failed"));
  failed_in_->addItem(tr("In what?"), QString());
  for (const std::string_view in : tasks::failed_in) failed_in_->addItem(text_of(in), text_of(in));
  what_ = line("event-what", tr("Which part"));
  from_ = line("event-from", tr("Changed from"));
  to_ = line("event-to", tr("to"));
  count_ = line("event-count", tr("How many landings"));
  cost_ = line("event-cost", tr("Cost"));
  note_ = line("event-note", tr("What it was like, what you saw"));
  auto* write_down = new QPushButton(tr("Write it down"), this);
  write_down->setObjectName("event-write");
  write_down->setToolTip(tr("One line in the Book, with day, name and build state"));
  all->addWidget(write_down);
  said_ = new QLabel(this);
  said_->setObjectName("event-said");
  said_->setWordWrap(true);
  said_->setFont(text_font(8.5));
  all->addWidget(said_);
  connect(write_down, &QPushButton::clicked, this, [this] { write(); });
  connect(sort_, &QComboBox::currentIndexChanged, this, [this] { show_fields(); });
  fill();
  show_fields();
}

void EventEntry::fill() {
  const QString was = leg_->currentData().toString();
  leg_->clear();
  leg_->addItem(tr("the aircraft, or no leg"), QString());
  for (const auto& p : tasks::pieces_of(document_.design(), tasks::Per::leg))
    leg_->addItem(sentence_of(p.words, document_.units()), text_of(p.key));
  leg_->setCurrentIndex(std::max(0, leg_->findData(was)));
}

void EventEntry::show_fields() {
  const std::string sort = sort_->currentData().toString().toStdString();
  const auto one_of = [&](const std::set<std::string>& sorts) { return sorts.count(sort) > 0; };
  count_->setVisible(one_of({"landing"}));
  what_->setVisible(one_of({"part", "failure", "repair", "purchase", "change"}));
  failed_in_->setVisible(one_of({"failure"}));
  from_->setVisible(one_of({"change", "part"}));
  to_->setVisible(one_of({"change", "part"}));
  cost_->setVisible(one_of({"purchase", "repair", "part"}));
  leg_->setVisible(!one_of({"", "landing", "purchase", "battery", "moved"}));
}

void EventEntry::write() {
  const QString sort = sort_->currentData().toString();
  tasks::Entry e = journal_.begun(sort.isEmpty() ? tasks::Mark::note : tasks::Mark::event);
  e.event = sort.toStdString();
  const auto typed = [this](const QLineEdit* field) {
    return field->isVisibleTo(this) ? field->text().trimmed().toStdString() : std::string();
  };
  const auto refuse = [this](const QString& why) { said_->setText(html(why)); };
  e.note = typed(note_);
  e.what = typed(what_);
  e.from = typed(from_);
  e.to = typed(to_);
  if (leg_->isVisibleTo(this) && !leg_->currentData().toString().isEmpty()) {
    e.piece = leg_->currentData().toString().toStdString();
    e.piece_words = leg_->currentText().toStdString();
  }
  QString wrong;
  const auto number = [&](const QLineEdit* field, double low, double high, bool whole) {
    const auto got =
        tasks::understood_number(field->placeholderText().toStdString(), typed(field), low, high, whole);
    if (const auto* why = std::get_if<std::string>(&got)) wrong = text_of(*why);
    return std::holds_alternative<double>(got) ? std::get<double>(got) : 0.0;
  };
  if (count_->isVisibleTo(this)) e.count = static_cast<int>(number(count_, 1, 1000, true));
  if (!typed(cost_).empty()) e.cost = number(cost_, 0, 10000000, false);
  if (!wrong.isEmpty()) return refuse(wrong);
  if (e.mark == tasks::Mark::note && e.note.empty())
    return refuse(tr("A note says something: write it above."));
  if ((e.event == "failure" || e.event == "part") && e.what.empty())
    return refuse(tr("Which part? Three failures of the same one are told by its name."));
  if (e.event == "failure") {
    e.from = failed_in_->currentData().toString().toStdString();
    if (e.from.empty())
      return refuse(
          tr("In what did it fail? Only what breaks in ordinary landings tells that a part is too weak."));
  }
  if (const auto why = journal_.write(e)) return refuse(*why);
  for (QLineEdit* f : {what_, from_, to_, count_, cost_, note_}) f->clear();
  failed_in_->setCurrentIndex(0);
  said_->setText(tr("written into the Book"));
}

}  // namespace kranich::app
