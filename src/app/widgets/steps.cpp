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
#include "app/stations/page.h"
#include "app/theme.h"
#include "app/widgets/findings.h"
#include "core/base/text.h"
#include "core/work/record.h"

namespace kranich::app {

namespace {

QString number_text(double si, const work::ReadingUnit& unit, UnitSystem units) {
  if (unit.kind) return QString::fromStdString(format_quantity(si, *unit.kind, units));
  QString s = QString::number(si, 'g', 6);
  if (unit.symbol != "number" && unit.symbol != "money") s += QStringLiteral(" ") + text_of(unit.symbol);
  return s;
}

QColor state_colour(work::State state) {
  const Theme& t = Theme::now();
  switch (state) {
    case work::State::done:
    case work::State::given:
      return t.holds;
    case work::State::off:
    case work::State::again:
      return t.fails;
    case work::State::tried:
      return t.tight;
    case work::State::open:
      return t.accent;
    case work::State::waits:
    case work::State::aside:
    case work::State::standing:
      return t.grey;
  }
  return t.grey;
}

QString coloured(const QColor& colour, const QString& markup) {
  return QStringLiteral("<span style='color:%1'>%2</span>").arg(colour.name(), markup);
}

//! A row of a list of steps: its state's sign, the piece, the text in two lines.
class StepButton : public QAbstractButton {
 public:
  StepButton(QWidget* parent, work::State state, const QString& piece, const QString& text)
      : QAbstractButton(parent), state_(state), piece_(piece), text_(text) {
    setCursor(Qt::PointingHandCursor);
    setText(piece.isEmpty() ? text : QStringLiteral("%1: %2").arg(piece, text));
    setAccessibleName(QStringLiteral("%1, %2").arg(this->text(), text_of(work::state_word(state))));
    setToolTip(text);
    setFixedHeight(40);
    setFocusPolicy(Qt::StrongFocus);
  }

 protected:
  void paintEvent(QPaintEvent*) override {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (underMouse() || hasFocus()) p.fillRect(rect(), t.card);
    draw_state(p, {11, 13}, 11, state_);
    const QRectF area(24, 3, width() - 28, height() - 6);
    QTextOption option;
    option.setWrapMode(QTextOption::WordWrap);
    QString text = text_;
    p.setFont(text_font(8.5));
    const QFontMetrics small = p.fontMetrics();
    double x = 0;
    if (!piece_.isEmpty()) {
      p.setFont(text_font(8.5, true));
      p.setPen(t.ink);
      const QString piece =
          p.fontMetrics().elidedText(piece_, Qt::ElideRight, static_cast<int>(area.width() * 0.55));
      x = p.fontMetrics().horizontalAdvance(piece) + 6;
      p.drawText(QPointF(area.left(), area.top() + small.ascent()), piece);
      p.setFont(text_font(8.5));
    }
    // The first line beside the piece, the rest below, the last one elided.
    p.setPen(t.ink);
    QString first;
    for (const QString& word : text.split(' ')) {
      const QString more = first.isEmpty() ? word : first + ' ' + word;
      if (small.horizontalAdvance(more) > area.width() - x) break;
      first = more;
    }
    p.drawText(QPointF(area.left() + x, area.top() + small.ascent()), first);
    p.setPen(t.grey);
    p.drawText(
        QPointF(area.left(), area.top() + small.lineSpacing() + small.ascent()),
        small.elidedText(text.mid(first.size()).trimmed(), Qt::ElideRight, static_cast<int>(area.width())));
  }

 private:
  work::State state_;
  QString piece_, text_;
};

//! A hazard's sign: its letters in a framed lozenge of the warning colour.
QLabel* hazard_sign(const work::Hazard& hazard, QWidget* parent) {
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

void draw_state(QPainter& p, const QPointF& c, double size, work::State state) {
  const double r = size / 2;
  const QColor colour = state_colour(state);
  p.save();
  p.setPen(QPen(colour, 1.4));
  p.setBrush(Qt::NoBrush);
  const QRectF box(c.x() - r, c.y() - r, 2 * r, 2 * r);
  const auto tick = [&] {
    p.drawPolyline(QPolygonF{QPointF(c.x() - 0.55 * r, c.y()), QPointF(c.x() - 0.1 * r, c.y() + 0.5 * r),
                             QPointF(c.x() + 0.7 * r, c.y() - 0.6 * r)});
  };
  switch (state) {
    case work::State::open:
      p.drawRect(box);
      break;
    case work::State::waits:
      p.setPen(QPen(colour, 1.1, Qt::DotLine));
      p.drawRect(box);
      break;
    case work::State::done:
    case work::State::given:
      p.drawRect(box);
      tick();
      break;
    case work::State::off:
      p.drawRect(box);
      tick();
      p.drawLine(QPointF(c.x() + r + 2, c.y() - r), QPointF(c.x() + r + 2, c.y() + 0.3 * r));
      p.drawPoint(QPointF(c.x() + r + 2, c.y() + r));
      break;
    case work::State::again:
      p.drawArc(box, 40 * 16, 290 * 16);
      p.drawLine(QPointF(c.x() + r * 0.75, c.y() - r * 0.7), QPointF(c.x() + r * 0.75, c.y() - r * 0.05));
      p.drawLine(QPointF(c.x() + r * 0.75, c.y() - r * 0.7), QPointF(c.x() + r * 0.15, c.y() - r * 0.6));
      break;
    case work::State::tried:
      p.drawRect(box);
      p.drawLine(box.bottomLeft(), box.topRight());
      break;
    case work::State::aside:
      p.drawRect(box);
      p.drawLine(QPointF(c.x() - 0.6 * r, c.y()), QPointF(c.x() + 0.6 * r, c.y()));
      break;
    case work::State::standing:
      p.drawEllipse(c, r * 0.8, r * 0.8);
      break;
  }
  p.restore();
}

QString step_text(Journal& journal, const work::Task& task, const work::Piece& piece, const std::string& text,
                  UnitSystem units) {
  return text_of(work::filled(journal.look(), journal.history(), task, piece, text, units));
}

QString foretold_text(const work::Reading& reading, const work::Foretold& f, UnitSystem units) {
  using Sort = work::Predicted::Sort;
  if (reading.predicted.sort == Sort::yes) return QObject::tr("yes");
  if (reading.predicted.sort == Sort::no) return QObject::tr("no");
  const auto say = [&](double si) { return number_text(si, reading.unit, units); };
  const bool low = std::isfinite(f.lower), high = std::isfinite(f.upper);
  if (low && high) {
    const double by = (f.upper - f.lower) / 2;
    return by > 0 ? QObject::tr("%1 ± %2").arg(say(f.value), say(by)) : say(f.value);
  }
  if (high) return QObject::tr("at most %1").arg(say(f.upper));
  if (low) return QObject::tr("at least %1").arg(say(f.lower));
  if (std::isfinite(f.value)) return say(f.value);
  if (reading.predicted.sort == Sort::judged) return QObject::tr("judged when entered");
  return {};
}

QString read_text(const work::Read& read, UnitSystem units) {
  if (!std::isfinite(read.value)) return text_of(read.text);
  const auto unit = work::reading_unit(read.unit);
  return unit ? number_text(read.value, *unit, units) : QString::number(read.value);
}

QString short_name(const work::Task& task) {
  QString s = text_of(task.id.substr(task.id.find('.') + 1));
  s.replace('-', ' ');
  // The same step for full size and for models has two lines in the table: one of them is shown.
  for (const QString& end : {QStringLiteral(" full"), QStringLiteral(" model")})
    if (s.endsWith(end)) s.chop(end.size());
  return capitalised(s);
}

QString question_text(const work::Hanging& q) {
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
  connect(&journal_, &Journal::changed, this, [this] { refresh(); });
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
  const work::Box* box = journal_.progress().find(task_, piece_);
  const work::Task* task = journal_.table().find(task_);
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
                          .arg(html(capitalised(text_of(task->choice->question)))));
    choice_ = new QButtonGroup(body_);
    for (size_t i = 0; i < task->choice->sides.size(); ++i) {
      auto* side = new QRadioButton(text_of(task->choice->sides[i]), body_);
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
    const work::Reading& r = task->readings[i];
    const int row = static_cast<int>(i) * 2;
    auto* name = new QLabel(text_of(capitalised(text_of(r.name)).toStdString()), body_);
    name->setWordWrap(true);
    name->setFont(text_font(8.5));
    grid->addWidget(name, row, 0);
    auto* field = new QLineEdit(body_);
    field->setObjectName(QStringLiteral("reading:%1").arg(i));
    field->setAccessibleName(text_of(r.name));
    if (r.unit.form == work::Form::yes_no) field->setPlaceholderText(tr("yes or no"));
    if (r.unit.kind)
      field->setPlaceholderText(text_of(std::string(display_unit(*r.unit.kind, document_.units()).symbol)));
    else if (r.unit.form == work::Form::number && r.unit.symbol != "number")
      field->setPlaceholderText(text_of(r.unit.symbol));
    grid->addWidget(field, row, 1);
    if (r.unit.form == work::Form::photo) {
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
        tick();
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
  done_ = button("step-done", tr("Done"), [this] { tick(); });
  kept_ = button("step-kept", tr("Does not matter"), [this] { keep(); });
  aside_ = button("step-aside", tr("Set aside"), [this] { set_aside(); });
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
  const work::Progress& progress = journal_.progress();
  const work::Box* box = progress.find(task_, piece_);
  if (!box) return;
  const work::Task& task = *box->task;
  const UnitSystem units = document_.units();
  state_ = box->state;
  QString head = QStringLiteral("%1 · %2").arg(text_of(work::stage_title(task.stage)), short_name(task));
  if (!box->piece.words.empty())
    head += QStringLiteral(" · <b>%1</b>").arg(html(sentence_of(box->piece.words, units)));
  head += QStringLiteral(" · ") + coloured(state_colour(box->state), text_of(work::state_word(box->state)));
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
    if (!box->passed() && box->state != work::State::tried)
      gates += tr(" Ticked now it counts as <b>tried</b>, with a reason.");
  }
  gates_->setText(gates);
  gates_->setVisible(!gates.isEmpty());
  done_->setText(box->gates.empty() ? tr("Done") : tr("Tried"));
  kept_->setVisible(box->state == work::State::again);
  aside_->setVisible(box->task->rung == 0 || box->task->rung == 5);
  // What is typed so far: figures that follow from it, the verdict beside each.
  bool good = true;
  work::Entry typed = draft(work::Mark::done, &good);
  for (size_t i = 0; i < rows_.size(); ++i) {
    const work::Reading& r = task.readings[i];
    const auto f = work::foretold(journal_.look(), journal_.history(), task, box->piece, i, typed.readings);
    const QString should = foretold_text(r, f, units);
    QString words = should.isEmpty() ? QString() : tr("should be %1").arg(html(should));
    for (const work::Read& read : typed.readings) {
      if (read.name != r.name) continue;
      const auto compared = r.unit.form == work::Form::number ? work::compare(f, read.value)
                                                              : work::compare(r.predicted, read.text);
      if (std::isfinite(read.value))
        words = tr("understood: %1 · ").arg(html(read_text(read, units))) + words;
      if (compared == work::Compared::within) words += coloured(Theme::now().holds, tr(" – within"));
      if (compared == work::Compared::outside) words += coloured(Theme::now().fails, tr(" – outside"));
    }
    rows_[i].foretold->setText(words);
    rows_[i].foretold->setVisible(!words.isEmpty());
  }
  QString history;
  const auto& entries = journal_.history().of(task_, piece_);
  for (auto e = entries.rbegin(); e != entries.rend() && e - entries.rbegin() < 6; ++e) {
    QStringList read;
    for (const auto& r : (*e)->readings) {
      QString one = QStringLiteral("%1 %2").arg(text_of(r.name), read_text(r, units));
      if (r.compared == work::Compared::outside) one = coloured(Theme::now().fails, html(one));
      read << one;
    }
    history += QStringLiteral("%1 %2 <b>%3</b> %4")
                   .arg(text_of(std::string((*e)->day())), html(text_of((*e)->who)),
                        text_of(std::string(work::mark_names[static_cast<size_t>((*e)->mark)])),
                        read.join(QStringLiteral(", ")));
    for (const std::string* words : {&(*e)->choice, &(*e)->reason, &(*e)->note})
      if (!words->empty()) history += QStringLiteral(" · ") + html(text_of(*words));
    history += QStringLiteral("<br>");
  }
  history_->setText(history);
  history_->setVisible(!history.isEmpty());
}

work::Entry StepCard::draft(work::Mark mark, bool* good) {
  work::Entry e = journal_.begun(mark);
  *good = true;
  const work::Task* task = journal_.table().find(task_);
  if (!task) return e;
  for (size_t i = 0; i < rows_.size() && i < task->readings.size(); ++i) {
    const work::Reading& r = task->readings[i];
    const QString typed = rows_[i].field->text().trimmed();
    if (typed.isEmpty()) continue;
    work::Read read;
    read.name = r.name;
    read.unit = r.unit.symbol;
    if (r.unit.form == work::Form::number) {
      const auto parsed =
          parse_quantity(typed.toStdString(), r.unit.kind.value_or(Kind::factor), document_.units());
      if (const auto* wrong = std::get_if<ParseError>(&parsed)) {
        *good = false;
        rows_[i].foretold->setText(coloured(Theme::now().fails, html(text_of(wrong->message))));
        rows_[i].foretold->show();
        continue;
      }
      read.value = std::get<ParsedQuantity>(parsed).si;
    } else if (r.unit.form == work::Form::yes_no) {
      const QString word = typed.toLower();
      if (QStringLiteral("yes").startsWith(word)) {
        read.text = "yes";
      } else if (QStringLiteral("no").startsWith(word)) {
        read.text = "no";
      } else {
        *good = false;
        continue;
      }
    } else {
      read.text = typed.toStdString();
    }
    e.readings.push_back(std::move(read));
  }
  e.note = note_->text().trimmed().toStdString();
  e.reason = reason_->text().trimmed().toStdString();
  e.source = source_->text().trimmed().toStdString();
  e.who = who_->text().trimmed().toStdString();
  e.hours = hours_->text().toDouble();
  e.cost = cost_->text().toDouble();
  e.pictures = pictures_;
  if (choice_ && choice_->checkedId() >= 0)
    e.choice = task->choice->sides[static_cast<size_t>(choice_->checkedId())];
  return e;
}

void StepCard::say(const QString& text, bool trouble) {
  said_->setText(coloured(trouble ? Theme::now().fails : Theme::now().accent, html(text)));
  said_->setVisible(!text.isEmpty());
}

void StepCard::tick() {
  const work::Box* box = journal_.progress().find(task_, piece_);
  if (!box) return;
  const bool tried = !box->gates.empty();
  bool good = true;
  work::Entry e = draft(tried ? work::Mark::tried : work::Mark::done, &good);
  if (!good) return say(tr("One of the readings cannot be read: see beside it."), true);
  if (tried && e.reason.empty())
    return say(tr("What is before it is not done. Tick it as tried, with a reason."), true);
  if (box->task->choice && e.choice.empty()) return say(tr("Say which of the two you do."), true);
  const work::Task& task = *box->task;
  if (const auto wanted = work::still_wanted(task, e); !wanted.empty())
    return say(tr("%1 is wanted: it is what proves the step.").arg(capitalised(text_of(wanted[0]))), true);
  // What is odd is asked about once, and kept all the same.
  work::Entry compared = e;
  work::compare_readings(journal_.look(), journal_.history(), task, box->piece, compared);
  QStringList odd;
  for (const Text& t : work::odd(compared, journal_.today().toStdString()))
    odd << text_of(t, document_.units());
  if (!odd.isEmpty() && asked_ != odd) {
    asked_ = odd;
    return say(tr("%1 Press again to keep it.").arg(capitalised(odd.join(QStringLiteral("; "))) + "."), true);
  }
  asked_.clear();
  journal_.set_who(who_->text());
  QStringList remarks;
  if (const auto why = journal_.tick(task, box->piece, e, &remarks)) return say(*why, true);
  for (auto& row : rows_) row.field->clear();
  note_->clear();
  reason_->clear();
  hours_->clear();
  cost_->clear();
  pictures_.clear();
  if (pictures_said_) pictures_said_->clear();
  say(remarks.isEmpty() ? tr("written into the Book") : remarks.join(' '), false);
  emit ticked();
}

void StepCard::set_aside() {
  bool good = true;
  work::Entry e = draft(work::Mark::aside, &good);
  e.readings.clear();
  if (e.reason.empty()) return say(tr("Set aside with a reason: write it above."), true);
  const work::Box* box = journal_.progress().find(task_, piece_);
  if (!box) return;
  if (const auto why = journal_.tick(*box->task, box->piece, e)) return say(*why, true);
  reason_->clear();
  say(tr("set aside"), false);
  emit ticked();
}

void StepCard::keep() {
  bool good = true;
  work::Entry e = draft(work::Mark::kept, &good);
  e.readings.clear();
  if (e.reason.empty()) return say(tr("It does not matter, because …: write why above."), true);
  const work::Box* box = journal_.progress().find(task_, piece_);
  if (!box) return;
  if (const auto why = journal_.tick(*box->task, box->piece, e)) return say(*why, true);
  reason_->clear();
  say(tr("the tick is kept"), false);
  emit ticked();
}

void StepCard::add_picture() {
  const QString file = QFileDialog::getOpenFileName(this, tr("Picture"), {},
                                                    tr("Pictures (*.jpg *.jpeg *.png);;All files (*)"));
  if (file.isEmpty()) return;
  work::Entry e = journal_.begun(work::Mark::note);
  e.task = task_;
  QString why;
  const QString kept = journal_.keep_picture(file, e, &why);
  if (kept.isEmpty()) return say(why, true);
  pictures_.push_back(kept.toStdString());
  QStringList names;
  for (const auto& p : pictures_) names << text_of(p);
  pictures_said_->setText(names.join('\n'));
  const work::Task* task = journal_.table().find(task_);
  for (size_t i = 0; task && i < rows_.size(); ++i)
    if (task->readings[i].unit.form == work::Form::photo) rows_[i].field->setText(kept);
}

StationSteps::StationSteps(Document& document, Station station, QWidget* parent)
    : QWidget(parent), document_(document), journal_(document.journal()), station_(station) {
  setObjectName("station-steps");
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(0, 0, 0, 0);
  all->setSpacing(2);
  heading_ = new QLabel(this);
  heading_->setContentsMargins(0, 8, 0, 2);
  heading_->setWordWrap(true);
  all->addWidget(heading_);
  rows_ = new QVBoxLayout;
  rows_->setSpacing(0);
  all->addLayout(rows_);
  card_ = new StepCard(document, this);
  card_->hide();
  all->addWidget(card_);
  rest_ = new QPushButton(this);
  rest_->setObjectName("steps-rest");
  rest_->setFlat(true);
  rest_->setCursor(Qt::PointingHandCursor);
  all->addWidget(rest_);
  connect(rest_, &QPushButton::clicked, this, [this] { journal_.choose({}, {}); });
  connect(card_, &StepCard::ticked, this, [this] {
    open_ = {};
    refresh();
  });
  refresh_when_seen(
      this, &document_, [this] { refresh(); }, &Document::changed);
  refresh_when_seen(
      this, &journal_, [this] { refresh(); }, &Journal::changed);
  refresh();
}

void StationSteps::refresh() {
  if (document_.before_drag()) return;  // the end of the drag asks again
  const work::Progress& progress = journal_.progress();
  const std::string id(station_id(station_));
  const auto list = work::ready(progress, id);
  const int waits = work::waiting(progress, id);
  clear_layout(rows_);
  const UnitSystem units = document_.units();
  size_t shown = 0;
  bool open_there = false;
  for (const auto* box : list) {
    if (shown++ == most) break;
    auto* row = new StepButton(this, box->state,
                               box->piece.words.empty() ? QString() : sentence_of(box->piece.words, units),
                               step_text(journal_, *box->task, box->piece, box->task->text, units));
    row->setObjectName(QStringLiteral("step:%1|%2").arg(text_of(box->task->id), text_of(box->piece.key)));
    rows_->addWidget(row);
    const std::pair key{box->task->id, box->piece.key};
    open_there = open_there || key == open_;
    connect(row, &QAbstractButton::clicked, this, [this, key] {
      open_ = open_ == key ? std::pair<std::string, std::string>() : key;
      card_->setVisible(!open_.first.empty());
      if (!open_.first.empty()) card_->show_box(open_.first, open_.second);
    });
  }
  if (!open_there) {
    open_ = {};
    card_->hide();
  }
  int asked = 0;
  for (const auto& q : progress.questions) {
    if (q.question->station != id) continue;
    ++asked;
    auto* row = new QWidget(this);
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(24, 2, 0, 2);
    auto* words = new QLabel(question_text(q), row);
    words->setWordWrap(true);
    words->setFont(text_font(8.5));
    line->addWidget(words, 1);
    if (!q.question->none.empty()) {
      auto* none = new QPushButton(tr("No"), row);
      none->setObjectName(QStringLiteral("without:%1").arg(text_of(q.question->key)));
      none->setToolTip(text_of(q.question->none));
      connect(none, &QPushButton::clicked, this, [this, key = std::string(q.question->key)] {
        document_.edit(tr("Answer a question"), [&](Design& d) {
          Without w;
          w.question = key;
          d.without.push_back(w);
        });
      });
      line->addWidget(none);
    }
    rows_->addWidget(row);
  }
  const int more = static_cast<int>(list.size()) - static_cast<int>(std::min(list.size(), most));
  heading_->setText(
      tr("<b>Steps of the work</b> &nbsp;<span style='font-size:8pt'>%1</span>")
          .arg(list.empty() ? tr("none open here") : tr("choose one to read, tick or set aside")));
  rest_->setText(more + waits > 0 ? tr("… %1 more, %2 wait: all on Bench").arg(more).arg(waits)
                                  : tr("All on Bench"));
  setVisible(!list.empty() || waits > 0 || asked > 0);
}

}  // namespace kranich::app
