// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/steps.h"

#include <QButtonGroup>
#include <QFileDialog>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QPainter>
#include <QRadioButton>
#include <algorithm>
#include <cmath>

#include "app/document/when_seen.h"
#include "app/drawing/step_row.h"
#include "app/stations/page.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/findings.h"
#include "core/base/text.h"
#include "core/tasks/record.h"
#include "core/tasks/words.h"

namespace kranich::app {

namespace {

QString coloured(const QColor& colour, const QString& markup) {
  return QStringLiteral("<span style='color:%1'>%2</span>").arg(colour.name(), markup);
}

//! A hazard's sign: its letters in a framed lozenge of the warning colour.
QLabel* hazard_sign(const tasks::Hazard& hazard, QWidget* parent) {
  auto* sign = new QLabel(text_of(hazard.sign), parent);
  sign->setToolTip(text_of(hazard.words));
  sign->setAccessibleName(text_of(hazard.words));
  sign->setFont(text_font(7.5, true));
  sign->setAlignment(Qt::AlignCenter);
  sign->setFixedSize(24, 18);
  sign->setStyleSheet(
      QStringLiteral("border:1px solid %1; border-radius:3px; color:%1;").arg(Theme::now().fails.name()));
  return sign;
}

}  // namespace

QString step_text(Journal& journal, const tasks::Task& task, const tasks::Piece& piece,
                  const std::string& text, UnitSystem units) {
  return text_of(tasks::filled(journal.look(), journal.history(), task, piece, text, tongue(units)));
}

std::string reading_typed(const tasks::Reading& reading, const QString& typed) {
  if (reading.unit.form == tasks::Form::number) return as_typed(typed);
  if (reading.unit.form == tasks::Form::yes_no)
    for (const std::string_view answer : {"yes", "no"})
      if (typed.trimmed().compare(in_tongue(answer), Qt::CaseInsensitive) == 0) return std::string(answer);
  return typed.toStdString();
}

QString question_text(const tasks::Hanging& q) {
  const QString words = text_of(q.question->words);
  return q.tasks == 1 ? QObject::tr("%1 One step hangs on it.").arg(words)
                      : QObject::tr("%1 %2 steps hang on it.").arg(words).arg(q.tasks);
}

StepCard::StepCard(Document& document, QWidget* parent)
    : QFrame(parent), document_(document), journal_(document.journal()), outside_(new QVBoxLayout(this)) {
  setObjectName("step-card");
  setFrameShape(QFrame::StyledPanel);
  outside_->setContentsMargins(0, 0, 0, 0);
  refresh_when_seen(
      this, &document_, [this] { refresh(); }, &Document::changed);
  refresh_when_seen(
      this, &journal_, [this] { refresh(); }, &Journal::changed);
}

void StepCard::show_box(const std::string& task, const std::string& piece) {
  if (task_ == task && piece_ == piece && said_) return refresh();
  task_ = task;
  piece_ = piece;
  build();
  refresh();
}

void StepCard::build() {
  delete body_;
  body_ = new QWidget(this);
  outside_->addWidget(body_);
  all_ = new QVBoxLayout(body_);
  all_->setContentsMargins(8, 6, 8, 8);
  all_->setSpacing(4);
  rows_.clear();
  pictures_.clear();
  choice_ = nullptr;
  said_ = nullptr;
  const tasks::Box* box = journal_.progress().find(task_, piece_);
  const tasks::Task* task = journal_.table().find(task_);
  if (!task || !box) return;
  const auto label = [&](double points) {
    auto* l = new QLabel(body_);
    l->setWordWrap(true);
    l->setFont(text_font(points));
    l->setTextFormat(Qt::RichText);
    all_->addWidget(l);
    return l;
  };
  head_ = label(8.5);
  text_ = label(10);
  text_->setObjectName("step-text");
  if (!task->hazards.empty()) {
    auto* signs = new QWidget(body_);
    auto* line = new QHBoxLayout(signs);
    line->setContentsMargins(0, 0, 0, 0);
    for (const auto* h : task->hazards) line->addWidget(hazard_sign(*h, signs));
    auto* words = new QLabel(signs);
    words->setWordWrap(true);
    words->setFont(text_font(7.5));
    QStringList all;
    for (const auto* h : task->hazards) all << text_of(h->words);
    words->setText(all.join(' '));
    line->addWidget(words, 1);
    all_->addWidget(signs);
  }
  if (!task->stop.empty()) {
    auto* stop = label(8.5);
    stop->setText(tr("<b>Stop at:</b> %1")
                      .arg(html(step_text(journal_, *task, box->piece, task->stop, document_.units()))));
    stop->setStyleSheet(QStringLiteral("border:1px solid %1; padding:3px;").arg(Theme::now().fails.name()));
  }
  gates_ = label(8.5);
  gates_->setObjectName("step-gates");
  // Queued: what is clicked on goes when another step is shown.
  connect(
      gates_, &QLabel::linkActivated, this,
      [this](const QString& link) {
        if (link.startsWith("step:")) {
          // The gate's own box of this piece, or its first.
          const std::string id = link.mid(5).toStdString();
          for (const auto& b : journal_.progress().boxes)
            if (b.task->id == id && !b.passed()) return journal_.choose(id, std::string(b.piece.key));
        }
      },
      Qt::QueuedConnection);
  if (task->choice) {
    auto* question = label(8.5);
    question->setText(tr("<b>%1</b>: which, and why? Neither is better by itself.")
                          .arg(html(capitalised(in_tongue(task->choice->question)))));
    choice_ = new QButtonGroup(body_);
    for (size_t i = 0; i < task->choice->sides.size(); ++i) {
      auto* side = new QRadioButton(in_tongue(task->choice->sides[i]), body_);
      side->setObjectName(QStringLiteral("step-side-%1").arg(i));
      choice_->addButton(side, static_cast<int>(i));
      all_->addWidget(side);
    }
  }
  auto* grid = new QGridLayout;
  grid->setContentsMargins(0, 2, 0, 2);
  grid->setHorizontalSpacing(6);
  grid->setVerticalSpacing(2);
  for (size_t i = 0; i < task->readings.size(); ++i) {
    const tasks::Reading& r = task->readings[i];
    const int row = static_cast<int>(i) * 2;
    auto* name = new QLabel(capitalised(in_tongue(r.name)), body_);
    name->setWordWrap(true);
    name->setFont(text_font(8.5));
    grid->addWidget(name, row, 0);
    auto* field = new QLineEdit(body_);
    field->setObjectName(QStringLiteral("reading:%1").arg(i));
    field->setAccessibleName(in_tongue(r.name));
    if (r.unit.form == tasks::Form::yes_no) field->setPlaceholderText(tr("yes or no"));
    if (r.unit.form == tasks::Form::number && r.unit.symbol != "number")
      field->setPlaceholderText(text_of(r.unit.symbol));
    grid->addWidget(field, row, 1);
    if (r.unit.form == tasks::Form::photo) {
      auto* add = new QPushButton(tr("Picture …"), body_);
      connect(add, &QPushButton::clicked, this, &StepCard::add_picture);
      grid->addWidget(add, row, 1);
      field->hide();
    }
    auto* foretold = new QLabel(body_);
    foretold->setFont(text_font(8));
    foretold->setWordWrap(true);
    foretold->setObjectName(QStringLiteral("foretold:%1").arg(i));
    grid->addWidget(foretold, row + 1, 0, 1, 2);
    rows_.push_back({r.name, field, foretold});
    connect(field, &QLineEdit::textChanged, this, [this] { refresh(); });
    connect(field, &QLineEdit::returnPressed, this, [this, i] {
      if (i + 1 < rows_.size())
        rows_[i + 1].field->setFocus();
      else
        write(done_mark());
    });
  }
  grid->setColumnStretch(0, 1);
  grid->setColumnStretch(1, 1);
  all_->addLayout(grid);
  const auto line = [&](const char* id, const QString& words) {
    auto* field = new QLineEdit(body_);
    field->setObjectName(QString::fromLatin1(id));
    field->setPlaceholderText(words);
    field->setAccessibleName(words);
    return field;
  };
  note_ = line("step-note", tr("What you saw"));
  all_->addWidget(note_);
  reason_ = line("step-reason", tr("Reason (for tried, set aside, does not matter)"));
  all_->addWidget(reason_);
  auto* fold = new Fold(tr("Who, hours, cost, source, pictures"), {}, body_);
  all_->addWidget(fold);
  auto* inside = new QWidget(body_);
  auto* more = new QVBoxLayout(inside);
  more->setContentsMargins(0, 0, 0, 0);
  who_ = line("step-who", tr("Who"));
  who_->setText(journal_.who());
  hours_ = line("step-hours", tr("Hours"));
  cost_ = line("step-cost", tr("Cost"));
  source_ = line("step-source", tr("Source of the instruction: plan, sheet, adviser, memory, own"));
  for (QWidget* w : std::initializer_list<QWidget*>{who_, hours_, cost_, source_}) more->addWidget(w);
  auto* picture = new QPushButton(tr("Add a picture …"), inside);
  picture->setObjectName("step-picture");
  connect(picture, &QPushButton::clicked, this, &StepCard::add_picture);
  more->addWidget(picture);
  pictures_said_ = new QLabel(inside);
  pictures_said_->setWordWrap(true);
  pictures_said_->setFont(text_font(8));
  more->addWidget(pictures_said_);
  all_->addWidget(inside);
  fold->set_inside(inside);
  auto* buttons = new QHBoxLayout;
  const auto button = [&](const char* id, const QString& words, auto does) {
    auto* b = new QPushButton(words, body_);
    b->setObjectName(QString::fromLatin1(id));
    connect(b, &QPushButton::clicked, this, does);
    buttons->addWidget(b);
    return b;
  };
  done_ = button("step-done", tr("Done"), [this] { write(done_mark()); });
  kept_ = button("step-kept", tr("Does not matter"), [this] { write(tasks::Mark::kept); });
  aside_ = button("step-aside", tr("Set aside"), [this] { write(tasks::Mark::aside); });
  all_->addLayout(buttons);
  said_ = label(8.5);
  said_->setObjectName("step-said");
  said_->hide();
  history_ = label(8);
  history_->setObjectName("step-history");
}

void StepCard::refresh() {
  if (document_.before_drag()) return;  // the end of the drag asks again
  if (task_.empty() || !said_) return;
  const tasks::Progress& progress = journal_.progress();
  const tasks::Box* box = progress.find(task_, piece_);
  if (!box) return;
  const tasks::Task& task = *box->task;
  const UnitSystem units = document_.units();
  QString head =
      QStringLiteral("%1 · %2").arg(text_of(tasks::stage_title(task.stage)), in_tongue(task.name()));
  if (!box->piece.words.empty())
    head += QStringLiteral(" · <b>%1</b>").arg(html(sentence_of(box->piece.words, units)));
  head += QStringLiteral(" · ") + coloured(state_colour(box->state), text_of(tasks::state_word(box->state)));
  if (task.rung) head += tr(" · rung %1").arg(task.rung);
  if (!task.helper.empty()) head += tr(" · <b>%1</b> more to help").arg(text_of(task.helper));
  head_->setText(head);
  QString text = html(step_text(journal_, task, box->piece, task.text, units));
  if (!task.why.empty())
    text +=
        QStringLiteral("<br>") +
        coloured(
            Theme::now().grey,
            QStringLiteral("<i>%1</i>").arg(html(step_text(journal_, task, box->piece, task.why, units))));
  text_->setText(text);
  QStringList before;
  for (const auto& g : box->gates) {
    const QString words = html(text_of(g.words, units));
    before << (g.task.empty() ? words
                              : QStringLiteral("<a href='step:%1'>%2</a>").arg(text_of(g.task), words));
  }
  QString gates;
  for (const Text& why : box->changed)
    gates += coloured(Theme::now().fails, tr("Open again: %1").arg(html(text_of(why, units)))) +
             QStringLiteral("<br>");
  if (box->rests_on_open) gates += tr("It rests on an open step. ");
  if (!before.isEmpty()) {
    gates += tr("<b>Before this:</b> %1.").arg(before.join(QStringLiteral("; ")));
    if (!box->passed() && box->state != tasks::State::tried)
      gates += tr(" Ticked now it counts as <b>tried</b>, with a reason.");
  }
  gates_->setText(gates);
  gates_->setVisible(!gates.isEmpty());
  done_->setText(box->gates.empty() ? tr("Done") : tr("Tried"));
  kept_->setVisible(box->state == tasks::State::again);
  aside_->setVisible(box->task->rung == 0 || box->task->rung == 5);
  // What is typed so far: figures that follow from it, the verdict beside each.
  const Draft typed = draft(tasks::Mark::done);
  for (size_t i = 0; i < rows_.size(); ++i) {
    const tasks::Reading& r = task.readings[i];
    if (r.unit.kind) rows_[i].field->setPlaceholderText(text_of(display_unit(*r.unit.kind, units).symbol));
    const auto f =
        tasks::foretold(journal_.look(), journal_.history(), task, box->piece, i, typed.entry.readings);
    const Text should = tasks::should_read(r, f);
    QString words = should.empty() ? QString() : tr("should be %1").arg(html(text_of(should, units)));
    for (const tasks::Read& read : typed.entry.readings) {
      if (read.name != r.name) continue;
      const auto compared = r.unit.form == tasks::Form::number ? tasks::compare(f, read.value)
                                                               : tasks::compare(r.predicted, read.text);
      if (r.unit.form == tasks::Form::number || r.unit.form == tasks::Form::yes_no)
        words = tr("understood: %1 · ").arg(html(text_of(tasks::said(read), units))) + words;
      if (compared == tasks::Compared::within) words += coloured(Theme::now().holds, tr(" – within"));
      if (compared == tasks::Compared::outside) words += coloured(Theme::now().fails, tr(" – outside"));
    }
    if (const auto unread = typed.unread.find(i); unread != typed.unread.end())
      words = coloured(Theme::now().fails, html(unread->second));
    rows_[i].foretold->setText(words);
    rows_[i].foretold->setVisible(!words.isEmpty());
  }
  QString history;
  const auto& entries = journal_.history().of(task_, piece_);
  for (auto e = entries.rbegin(); e != entries.rend() && e - entries.rbegin() < 6; ++e) {
    QStringList told;
    for (const Text& t : tasks::told(**e)) told << html(text_of(t, units));
    history += QStringLiteral("%1 %2 <b>%3</b> %4<br>")
                   .arg(text_of((*e)->day()), html(text_of((*e)->who)),
                        text_of(tasks::mark_names[static_cast<size_t>((*e)->mark)]),
                        told.join(QStringLiteral(" · ")));
  }
  history_->setText(history);
  history_->setVisible(!history.isEmpty());
}

StepCard::Draft StepCard::draft(tasks::Mark mark) const {
  Draft d;
  tasks::Entry& e = d.entry = journal_.begun(mark);
  const tasks::Task* task = journal_.table().find(task_);
  if (!task) return d;
  const auto wrong = [&](const QString& what) {
    if (d.trouble.isEmpty()) d.trouble = what;
  };
  // Setting aside and keeping are of the step as a whole: what is typed of its readings stays in the fields.
  const bool read = mark == tasks::Mark::done || mark == tasks::Mark::tried;
  for (size_t i = 0; read && i < rows_.size() && i < task->readings.size(); ++i) {
    const QString typed = rows_[i].field->text().trimmed();
    if (typed.isEmpty()) continue;
    auto understood =
        tasks::understood(task->readings[i], reading_typed(task->readings[i], typed), document_.units());
    if (const auto* why = std::get_if<std::string>(&understood)) {
      d.unread[i] = text_of(*why);
      wrong(tr("%1 cannot be read: %2").arg(in_tongue(task->readings[i].name), d.unread[i]));
    } else {
      e.readings.push_back(std::get<tasks::Read>(std::move(understood)));
    }
  }
  const auto number = [&](const QLineEdit* field, double most) {
    const QString typed = field->text().trimmed();
    if (typed.isEmpty()) return 0.0;
    const auto got =
        tasks::understood_number(field->placeholderText().toStdString(), typed.toStdString(), 0, most);
    if (const auto* why = std::get_if<std::string>(&got)) wrong(text_of(*why));
    return std::holds_alternative<double>(got) ? std::get<double>(got) : 0.0;
  };
  e.hours = number(hours_, 10000);
  e.cost = number(cost_, 10000000);
  e.note = note_->text().trimmed().toStdString();
  e.reason = reason_->text().trimmed().toStdString();
  e.source = source_->text().trimmed().toStdString();
  e.who = who_->text().trimmed().toStdString();
  e.pictures = pictures_;
  if (choice_ && choice_->checkedId() >= 0)
    e.choice = task->choice->sides[static_cast<size_t>(choice_->checkedId())];
  return d;
}

void StepCard::say(const QString& text, bool trouble) {
  said_->setText(coloured(trouble ? Theme::now().fails : Theme::now().accent, html(text)));
  said_->setVisible(!text.isEmpty());
}

tasks::Mark StepCard::done_mark() const {
  const tasks::Box* box = journal_.progress().find(task_, piece_);
  return box && !box->gates.empty() ? tasks::Mark::tried : tasks::Mark::done;
}

void StepCard::write(tasks::Mark mark) {
  const tasks::Box* box = journal_.progress().find(task_, piece_);
  if (!box) return;
  const Draft typed = draft(mark);
  if (!typed.trouble.isEmpty()) return say(capitalised(typed.trouble) + ".", true);
  if (const Text lacks = tasks::lacks(*box, typed.entry); !lacks.empty())
    return say(sentence_of(lacks, document_.units()) + ".", true);
  const bool ticks = mark == tasks::Mark::done || mark == tasks::Mark::tried;
  if (ticks) {
    // What is odd is asked about once, and kept all the same.
    tasks::Entry compared = typed.entry;
    tasks::compare_readings(journal_.look(), journal_.history(), *box->task, box->piece, compared);
    QStringList odd;
    for (const Text& t : tasks::odd(compared, journal_.today().toStdString()))
      odd << text_of(t, document_.units());
    if (!odd.isEmpty() && asked_ != odd) {
      asked_ = odd;
      return say(tr("%1 Press again to keep it.").arg(capitalised(odd.join(QStringLiteral("; "))) + "."),
                 true);
    }
    asked_.clear();
  }
  journal_.set_who(who_->text());
  QStringList remarks;
  if (const auto why = journal_.tick(*box->task, box->piece, typed.entry, &remarks)) return say(*why, true);
  if (ticks)
    for (auto& row : rows_) row.field->clear();
  for (QLineEdit* field : {note_, reason_, hours_, cost_}) field->clear();
  pictures_.clear();
  pictures_said_->clear();
  const QString did = ticks                        ? tr("written into the Book")
                      : mark == tasks::Mark::aside ? tr("set aside")
                                                   : tr("the tick is kept");
  say(remarks.isEmpty() ? did : remarks.join(' '), false);
  emit ticked();
}

void StepCard::add_picture() {
  const QString file = QFileDialog::getOpenFileName(this, tr("Picture"), {},
                                                    tr("Pictures (*.jpg *.jpeg *.png);;All files (*)"));
  if (file.isEmpty()) return;
  tasks::Entry e = journal_.begun(tasks::Mark::note);
  e.task = task_;
  QString why;
  const QString kept = journal_.keep_picture(file, e, &why);
  if (kept.isEmpty()) return say(why, true);
  pictures_.push_back(kept.toStdString());
  QStringList names;
  for (const auto& p : pictures_) names << text_of(p);
  pictures_said_->setText(names.join('\n'));
  const tasks::Task* task = journal_.table().find(task_);
  for (size_t i = 0; task && i < rows_.size(); ++i)
    if (task->readings[i].unit.form == tasks::Form::photo) rows_[i].field->setText(kept);
}

}  // namespace kranich::app
