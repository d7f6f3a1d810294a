// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/start/start_page.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QScrollArea>
#include <QVBoxLayout>
#include <cmath>

#include "app/drawing/aircraft.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/findings.h"
#include "app/widgets/quantity_edit.h"
#include "core/model/describe_words.h"
#include "core/start/start.h"

namespace kranich::app {
namespace {

//! One view of the aircraft in hand, without handles.
class PreviewPane : public Pane {
 public:
  enum class View { side, front, plan };
  PreviewPane(Document& document, View view) : Pane(document), view_(view) {}
  QString name() const override { return QObject::tr("Guessed aircraft"); }
  QMarginsF margins() const override { return {16, 12, 16, 12}; }
  QRectF bounds() const override {
    if (document_.design().airframe.bodies.empty()) return {};
    const Pose pose = now();
    // All of it, tip to tip.
    const double half =
        document_.design().airframe.wing.span.known() ? document_.design().airframe.wing.span / 2 : 0.0;
    if (view_ == View::side) return side_bounds(pose);
    QRectF box = view_ == View::front ? front_bounds(pose) : plan_bounds(pose);
    if (view_ == View::front) {
      box.setLeft(std::min(box.left(), -1.04 * half));
      box.setRight(std::max(box.right(), 1.04 * half));
    } else {
      box.setTop(std::min(box.top(), -1.04 * half));
      box.setBottom(std::max(box.bottom(), 1.04 * half));
    }
    return box;
  }
  void draw(Sheet& sheet) override {
    if (document_.design().airframe.bodies.empty()) return;
    const Pose pose = now();
    switch (view_) {
      case View::side:
        return draw_side(sheet, pose);
      case View::front:
        return draw_front(sheet, pose);
      case View::plan:
        return draw_plan(sheet, pose);
    }
  }

 private:
  Pose now() const { return pose_of(document_.design(), document_.loading(), GearState::static_load, 0); }
  View view_;
};

const char* question_id(Question q) {
  switch (q) {
    case Question::build:
      return "build";
    case Question::craft:
      return "craft";
    case Question::gear:
      return "gear";
    case Question::mass:
      return "mass";
    case Question::span:
      return "span";
    case Question::length:
      return "length";
    case Question::wing:
      return "wing";
    case Question::engine:
      return "engine";
    case Question::field:
      return "field";
  }
  return "";
}

}  // namespace

StartPage::StartPage(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
  setObjectName("start-page");
  auto* all = new QHBoxLayout(this);
  all->setContentsMargins(0, 0, 0, 0);
  all->setSpacing(0);
  stack_ = new QStackedWidget(this);
  stack_->addWidget(questions());
  all->addWidget(stack_, 1);
  auto* right = new QWidget(this);
  auto* side = new QVBoxLayout(right);
  side->setContentsMargins(10, 12, 14, 8);
  board_ = new Board(scratch_, right);
  board_->setAccessibleName(tr("The aircraft that the answers lead to"));
  board_->setFocusPolicy(Qt::NoFocus);
  board_->setMinimumWidth(320);
  board_->add(std::make_unique<PreviewPane>(scratch_, PreviewPane::View::side), {0, 0, 1, 0.40});
  board_->add(std::make_unique<PreviewPane>(scratch_, PreviewPane::View::front), {0, 0.40, 1, 0.24});
  board_->add(std::make_unique<PreviewPane>(scratch_, PreviewPane::View::plan), {0, 0.64, 1, 0.36});
  side->addWidget(board_, 1);
  said_ = new QLabel(right);
  said_->setObjectName("start-said");
  said_->setWordWrap(true);
  said_->setFont(text_font(9));
  said_->setMinimumHeight(56);
  side->addWidget(said_);
  make_ = new QPushButton(tr("Make this aircraft"), right);
  make_->setObjectName("start-make");
  make_->setToolTip(tr("What is left open is guessed, marked as a guess, and replaced as you measure"));
  auto* by_hand = new QPushButton(tr("Enter everything myself"), right);
  by_hand->setObjectName("start-by-hand");
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(make_, 2);
  buttons->addWidget(by_hand, 1);
  side->addLayout(buttons);
  all->addWidget(right, 1);
  connect(make_, &QPushButton::clicked, this, [this] {
    make();
    emit made();
  });
  connect(by_hand, &QPushButton::clicked, this, &StartPage::without);
  connect(&document_, &Document::changed, this, [this] {
    if (hurt_ && isVisible()) refresh_hurt();
  });
  refresh();
}

StartPage::Row& StartPage::add_row(QVBoxLayout* into, Question question, const QString& title) {
  auto row = std::make_unique<Row>();
  row->question = question;
  auto* frame = new QWidget(this);
  auto* line = new QHBoxLayout(frame);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(10);
  row->drawing = new QuestionDrawing(question, frame);
  line->addWidget(row->drawing);
  auto* text = new QVBoxLayout;
  text->setSpacing(2);
  auto* head = new QHBoxLayout;
  auto* label = new QLabel(QStringLiteral("%1  %2").arg(rows_.size() + 1).arg(title), frame);
  label->setFont(text_font(9.5, true));
  head->addWidget(label);
  row->hint = new QLabel(frame);
  row->hint->setObjectName(QStringLiteral("hint-%1").arg(question_id(question)));
  row->hint->setFont(text_font(8));
  row->hint->setWordWrap(true);
  head->addWidget(row->hint, 1);
  row->open = new QPushButton(tr("leave open"), frame);
  row->open->setObjectName(QStringLiteral("open-%1").arg(question_id(question)));
  row->open->setAccessibleName(tr("%1: leave open").arg(title));
  row->open->setFlat(true);
  row->open->setFont(text_font(8));
  row->open->setVisible(false);
  head->addWidget(row->open);
  text->addLayout(head);
  auto* body = new QHBoxLayout;
  body->setObjectName("body");
  body->setSpacing(4);
  text->addLayout(body);
  line->addLayout(text, 1);
  into->addWidget(frame);
  Row* made = row.get();
  connect(row->open, &QPushButton::clicked, this, [this, made] { leave_open(*made); });
  rows_.push_back(std::move(row));
  return *made;
}

QHBoxLayout* StartPage::line_of(Row& row) {
  return row.hint->parentWidget()->findChild<QHBoxLayout*>("body");
}

void StartPage::add_choice(Row& row, QHBoxLayout* line,
                           const std::vector<std::pair<QString, QString>>& buttons,
                           const std::function<void(int)>& chosen) {
  auto* group = new QButtonGroup(this);
  int id = 0;
  for (const auto& [name, words] : buttons) {
    auto* b = new QPushButton(words, row.hint->parentWidget());
    b->setCheckable(true);
    b->setObjectName(QStringLiteral("answer-%1").arg(name));
    group->addButton(b, id++);
    line->addWidget(b);
  }
  row.groups.push_back(group);
  connect(group, &QButtonGroup::idClicked, this, [this, chosen](int which) {
    chosen(which);
    refresh();
  });
}

void StartPage::add_entry(Row& row, QHBoxLayout* line, const char* name, Kind kind,
                          std::optional<double> start::Answers::*member, bool start::Answers::*keep) {
  row.entry = new QLineEdit(row.hint->parentWidget());
  row.entry->setObjectName(QStringLiteral("answer-%1").arg(name));
  row.entry->setAccessibleName(QString::fromLatin1(name));
  row.entry->setFont(figure_font(10));
  row.entry->setFixedWidth(120);
  row.entry->setPlaceholderText(kind == Kind::mass ? document_.unit(kind)
                                : kind == Kind::length
                                    ? (document_.units() == UnitSystem::metric ? "m" : "ft")
                                    : "–");
  line->addWidget(row.entry);
  if (keep) {
    row.keep = new QPushButton(tr("keep it all the same"), row.hint->parentWidget());
    row.keep->setObjectName(QStringLiteral("keep-%1").arg(name));
    row.keep->setVisible(false);
    line->addWidget(row.keep);
    connect(row.keep, &QPushButton::clicked, this, [this, keep] {
      answers_.*keep = true;
      refresh();
    });
  }
  line->addStretch(1);
  Row* at = &row;
  connect(row.entry, &QLineEdit::textEdited, this, [this, at, kind, member, keep] {
    if (keep) answers_.*keep = false;
    typed(*at, kind, member);
  });
}

void StartPage::typed(Row& row, Kind kind, std::optional<double> start::Answers::*member) {
  const QString text = row.entry->text().trimmed();
  (answers_.*member).reset();
  QString wrong;
  if (!text.isEmpty()) {
    // Lengths of whole aircraft are thought in metres, whatever a part is measured in.
    QString with_unit = text;
    bool bare = false;
    text.toDouble(&bare);
    if (bare && kind == Kind::length && document_.units() == UnitSystem::metric) with_unit += " m";
    if (bare && kind == Kind::length && document_.units() == UnitSystem::inch) with_unit += " ft";
    const auto parsed = parse_quantity(as_typed(with_unit), kind, document_.units());
    if (const auto* got = std::get_if<ParsedQuantity>(&parsed))
      answers_.*member = got->si;
    else
      wrong = text_of(std::get<ParseError>(parsed).message);
  }
  row.entry->setProperty("wrong", wrong);
  refresh();
}

QWidget* StartPage::questions() {
  auto* scroll = new QScrollArea(this);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  scroll->setMinimumWidth(578);
  auto* inside = new QWidget(scroll);
  auto* all = new QVBoxLayout(inside);
  all->setContentsMargins(16, 12, 10, 10);
  all->setSpacing(4);
  auto* head = new QLabel(tr("A new aircraft from nine answers"), inside);
  head->setFont(text_font(14, true));
  all->addWidget(head);
  auto* note =
      new QLabel(tr("In any order. What you leave open is taken as usual and marked as guessed; every "
                    "verdict then says what hangs on guesses."),
                 inside);
  note->setWordWrap(true);
  note->setFont(text_font(8.5));
  all->addWidget(note);

  {
    Row& row = add_row(all, Question::build, tr("What are you building?"));
    add_choice(row, line_of(row),
               {{"seats-0", tr("no seat")},
                {"seats-1", tr("1 seat")},
                {"seats-2", tr("2")},
                {"seats-3", tr("3")},
                {"seats-4", tr("4")},
                {"model", tr("a model")}},
               [this](int which) {
                 answers_.build = which == 5 ? Build::model : Build::full_size;
                 answers_.seats = which == 5 ? std::nullopt : std::optional(which);
                 if (which != 5) answers_.scale.reset();
               });
    line_of(row)->addWidget(new QLabel(tr("of 1:"), row.hint->parentWidget()));
    add_entry(row, line_of(row), "scale", Kind::factor, &start::Answers::scale, nullptr);
    row.entry->setFixedWidth(52);
  }
  {
    Row& row = add_row(all, Question::craft, tr("What is it?"));
    add_choice(row, line_of(row),
               {{"nose-wheel", tr("nose wheel")},
                {"tail-wheel", tr("tail wheel")},
                {"helicopter", tr("helicopter")}},
               [this](int which) { answers_.kind = static_cast<Craft>(which); });
    line_of(row)->addStretch(1);
  }
  {
    Row& row = add_row(all, Question::gear, tr("Gear"));
    add_choice(row, line_of(row), {{"fixed", tr("fixed")}, {"retractable", tr("goes up")}},
               [this](int which) { answers_.retractable = which == 1; });
    line_of(row)->addStretch(1);
  }
  {
    Row& row = add_row(all, Question::mass, tr("All-up mass"));
    add_entry(row, line_of(row), "mass", Kind::mass, &start::Answers::mass, nullptr);
  }
  {
    Row& row = add_row(all, Question::span, tr("Span, or rotor diameter"));
    add_entry(row, line_of(row), "span", Kind::length, &start::Answers::span, &start::Answers::keep_span);
  }
  {
    Row& row = add_row(all, Question::length, tr("Fuselage, spinner to tail end"));
    add_entry(row, line_of(row), "length", Kind::length, &start::Answers::length,
              &start::Answers::keep_length);
  }
  {
    Row& row = add_row(all, Question::wing, tr("Wing"));
    add_choice(row, line_of(row), {{"low", tr("low")}, {"mid", tr("mid")}, {"high", tr("high")}},
               [this](int which) { answers_.wing = static_cast<WingPlace>(which); });
    line_of(row)->addStretch(1);
  }
  {
    Row& row = add_row(all, Question::engine, tr("Driven by"));
    add_choice(
        row, line_of(row),
        {{"front", tr("propeller in front")}, {"pusher", tr("pusher")}, {"ducted", tr("ducted or jet")}},
        [this](int which) { answers_.engine = static_cast<Engine>(which); });
    line_of(row)->addStretch(1);
  }
  {
    Row& row = add_row(all, Question::field, tr("Field"));
    std::vector<std::pair<QString, QString>> fields;
    for (const Field f : {Field::tarmac, Field::turf, Field::rough, Field::sand, Field::indoor})
      fields.emplace_back(QStringLiteral("field-%1").arg(static_cast<int>(f)),
                          text_of(field_names[static_cast<size_t>(f)]));
    add_choice(row, line_of(row), fields, [this](int which) { answers_.field = static_cast<Field>(which); });
    line_of(row)->addStretch(1);
  }
  auto* hurts = new QLabel(tr("Or start from what hurts"), inside);
  hurts->setFont(text_font(10, true));
  all->addSpacing(2);
  all->addWidget(hurts);
  auto* grid = new QGridLayout;
  grid->setSpacing(4);
  // As many beside each other as the page has room for, in a language of longer words fewer.
  int widest = 0;
  for (const auto& hurt : start::hurts())
    widest = std::max(widest, QFontMetrics(text_font(8.5)).horizontalAdvance(text_of(hurt.words)));
  constexpr int room = 540;
  constexpr int round_it = 24;
  const int across = std::clamp(room / (widest + round_it), 1, 3);
  int at = 0;
  for (const auto& hurt : start::hurts()) {
    auto* b = new QPushButton(text_of(hurt.words), inside);
    b->setObjectName(QStringLiteral("hurt-%1").arg(word_of_file(hurt.id)));
    connect(b, &QPushButton::clicked, this, [this, h = &hurt] { show_hurt(*h); });
    b->setFont(text_font(8.5));
    grid->addWidget(b, at / across, at % across);
    ++at;
  }
  all->addLayout(grid);
  all->addStretch(1);
  scroll->setWidget(inside);
  return scroll;
}

void StartPage::clear(Row& row) {
  if (row.entry) {
    row.entry->clear();
    row.entry->setProperty("wrong", QString());
  }
  for (auto* g : row.groups) {
    g->setExclusive(false);
    for (auto* b : g->buttons()) b->setChecked(false);
    g->setExclusive(true);
  }
}

void StartPage::begin() {
  answers_ = {};
  made_with_.reset();
  hurt_ = nullptr;
  for (auto& row : rows_) clear(*row);
  stack_->setCurrentIndex(0);
  refresh();
}

void StartPage::leave_open(Row& row) {
  switch (row.question) {
    case Question::build:
      answers_.build.reset();
      answers_.seats.reset();
      answers_.scale.reset();
      break;
    case Question::craft:
      answers_.kind.reset();
      break;
    case Question::gear:
      answers_.retractable.reset();
      break;
    case Question::mass:
      answers_.mass.reset();
      break;
    case Question::span:
      answers_.span.reset();
      break;
    case Question::length:
      answers_.length.reset();
      break;
    case Question::wing:
      answers_.wing.reset();
      break;
    case Question::engine:
      answers_.engine.reset();
      break;
    case Question::field:
      answers_.field.reset();
      break;
  }
  clear(row);
  refresh();
}

void StartPage::refresh() {
  const auto refusals = start::refusals(answers_);
  const Theme& t = Theme::now();
  const auto whole = [&](double si, Kind kind) {
    return kind == Kind::length && document_.units() == UnitSystem::metric
               ? QStringLiteral("%1 m").arg(figure(si, si < 3 ? 2 : 1))
               : document_.say(si, kind);
  };
  const auto range = [&](const start::Allowed& a, Kind kind) {
    return tr("usually %1, allowed %2 to %3")
        .arg(whole(a.usual, kind), whole(a.least, kind), whole(a.most, kind));
  };
  const auto by_mass = [&](const start::Allowed& a) {
    return tr("at %1 %2 to %3")
        .arg(document_.say(start::settled(answers_).mass, Kind::mass), whole(a.least, Kind::length),
             whole(a.most, Kind::length));
  };
  const bool helicopter = answers_.kind == Craft::helicopter, model = answers_.build == Build::model;
  bool wrong = false;
  for (auto& row : rows_) {
    row->drawing->show_answers(answers_);
    QString hint, trouble;
    bool answered = false, may_keep = false;
    const auto about = [&](const char* question) {
      for (const auto& r : refusals)
        if (r.question == question) {
          trouble = sentence_of(r.why, document_.units());
          may_keep = r.may_be_kept;
        }
    };
    switch (row->question) {
      case Question::build:
        answered = answers_.build.has_value();
        row->entry->setEnabled(model);
        if (!model) row->entry->clear();  // what was of a model goes with it
        if (!answered) hint = tr("open: two seats are taken");
        about("scale");
        break;
      case Question::craft:
        answered = answers_.kind.has_value();
        if (!answered) hint = tr("open: nose wheel is taken");
        break;
      case Question::gear:
        answered = answers_.retractable.has_value();
        if (!answered)
          hint = tr("open: fixed is taken");
        else if (answers_.kind == Craft::tail_wheel && *answers_.retractable)
          hint = tr("the tail wheel stays out");
        break;
      case Question::mass:
        answered = answers_.mass.has_value();
        hint = range(start::allowed_mass(answers_), Kind::mass);
        about("mass");
        break;
      case Question::span:
        answered = answers_.span.has_value();
        hint = range(start::allowed_span(answers_), Kind::length);
        about("span");
        if (!trouble.isEmpty()) trouble = by_mass(start::allowed_span(answers_));
        break;
      case Question::length:
        answered = answers_.length.has_value();
        hint = range(start::allowed_length(answers_), Kind::length);
        about("length");
        if (!trouble.isEmpty()) trouble = by_mass(start::allowed_length(answers_));
        break;
      case Question::wing:
        answered = answers_.wing.has_value();
        if (helicopter)
          hint = tr("a helicopter has none");
        else if (!answered)
          hint = tr("open: low is taken");
        break;
      case Question::engine:
        answered = answers_.engine.has_value();
        if (helicopter)
          hint = tr("a helicopter has its rotor");
        else if (!answered)
          hint = tr("open: a propeller in front is taken");
        break;
      case Question::field:
        answered = answers_.field.has_value();
        if (!answered) hint = tr("open: turf is taken");
        about("field");
        break;
    }
    if (row->question == Question::wing || row->question == Question::engine)
      for (auto* g : row->groups)
        for (auto* b : g->buttons()) b->setEnabled(!helicopter);
    if (row->entry)
      if (const QString typed = row->entry->property("wrong").toString(); !typed.isEmpty()) trouble = typed;
    wrong = wrong || !trouble.isEmpty();
    row->open->setVisible(answered || (row->entry && !row->entry->text().isEmpty()));
    if (row->keep) row->keep->setVisible(may_keep);
    QPalette p = row->hint->palette();
    p.setColor(QPalette::WindowText, trouble.isEmpty() ? t.grey : t.fails);
    row->hint->setPalette(p);
    row->hint->setText(trouble.isEmpty() ? hint : trouble);
  }
  make_->setEnabled(!wrong);
  if (wrong) {
    said_->setText(tr("One answer is outside of what is allowed: the aircraft waits for it."));
    return;
  }
  const start::Started made = start::started(answers_);
  Design design = made.design;
  design.units = document_.units();
  scratch_.start(std::move(design), QString());
  scratch_.cancel_tolerances();
  int hold = 0, rest = 0;
  for (const Finding* f : worst_of_each(scratch_.assessment())) {
    hold += f->verdict == Verdict::holds;
    rest += f->verdict == Verdict::tight || f->verdict == Verdict::fails || f->verdict == Verdict::unknown;
  }
  const Design& d = scratch_.design();
  const Leg &main = d.gear.main(), &third = d.gear.third();
  QStringList notes;
  for (const Text& note : made.notes) notes << html(sentence_of(note, document_.units()));
  said_->setText(
      tr("<b>Main wheels %1, track %2, wheelbase %3.</b> %4 checks hold and %5 do not, all on guesses: "
         "the list of what to measure next says which of them matter. %6")
          .arg(document_.say(main.wheel.diameter, Kind::length), document_.say(2 * main.axle.y, Kind::length),
               document_.say(std::abs(main.axle.x - third.axle.x), Kind::length))
          .arg(hold)
          .arg(rest)
          .arg(notes.isEmpty() ? QString() : notes.join(". ") + "."));
  board_->update();
}

void StartPage::make() {
  // Made already from these very answers: what has been typed into it since stays.
  if (made_with_ == answers_ && document_.design().begun.started) return;
  made_with_ = answers_;
  start::Started made = start::started(answers_);
  made.design.units = document_.units();
  // A step of its own: what is made is work, asked about before it is thrown away, and can be taken back.
  document_.edit(tr("Make the aircraft from the answers"), [&](Design& d) { d = std::move(made.design); });
}

void StartPage::show_hurt(const start::Hurt& hurt) {
  if (!start::refusals(answers_).empty()) return;
  make();
  hurt_ = &hurt;
  if (hurt_page_) {
    stack_->removeWidget(hurt_page_);
    hurt_page_->deleteLater();
  }
  auto* scroll = new QScrollArea(this);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  auto* inside = new QWidget(scroll);
  auto* all = new QVBoxLayout(inside);
  all->setContentsMargins(16, 12, 10, 10);
  all->setSpacing(6);
  auto* back = new QPushButton(tr("Back to the questions"), inside);
  back->setObjectName("hurt-back");
  connect(back, &QPushButton::clicked, this, [this] {
    hurt_ = nullptr;
    stack_->setCurrentIndex(0);
  });
  all->addWidget(back, 0, Qt::AlignLeft);
  auto* head = new QLabel(text_of(hurt.words), inside);
  head->setFont(text_font(14, true));
  all->addWidget(head);
  auto* note =
      new QLabel(tr("These numbers decide it. Type those that you know; the rest is guessed."), inside);
  note->setWordWrap(true);
  all->addWidget(note);
  for (const auto& path : start::deciding(hurt, document_.design())) {
    QString title;
    for (const NamedGiven& g : all_given(document_.design()))
      if (g.path == path) title = text_of(g.title());
    auto* row = new QuantityRow(document_, text_of(path), title, inside);
    all->addWidget(row);
  }
  verdicts_ = new QLabel(inside);
  verdicts_->setObjectName("hurt-verdicts");
  verdicts_->setTextFormat(Qt::RichText);
  verdicts_->setWordWrap(true);
  all->addWidget(verdicts_);
  connect(verdicts_, &QLabel::linkActivated, this,
          [this](const QString& key) { emit go_to(hurt_ ? hurt_->station : Station::place, key); });
  auto* go = new QPushButton(tr("Go to %1").arg(text_of(station_title(hurt.station))), inside);
  go->setObjectName("hurt-go");
  connect(go, &QPushButton::clicked, this, [this] {
    if (hurt_) emit go_to(hurt_->station, QString());
  });
  all->addWidget(go, 0, Qt::AlignLeft);
  all->addStretch(1);
  scroll->setWidget(inside);
  hurt_page_ = scroll;
  stack_->addWidget(scroll);
  stack_->setCurrentWidget(scroll);
  refresh_hurt();
}

void StartPage::refresh_hurt() {
  QString text;
  for (const auto& id : hurt_->measures)
    for (const Finding* f : worst_of_each(document_.assessment())) {
      if (f->measure_id != id) continue;
      const QString verdict = text_of(verdict_word(f->verdict));
      text += QStringLiteral("<p><a href='%1'>%2</a>: %3 <span style='color:%4'><b>%5</b></span> %6</p>")
                  .arg(html(text_of(f->key())), html(title_of(*f, document_.units())),
                       html(value_text(*f, document_.units())), Theme::now().of(f->verdict).name(),
                       html(verdict), html(limit_text(*f, document_.units())));
    }
  if (text.isEmpty()) {
    const bool door = hurt_->id == "door";
    text = door ? tr("<p>No door is entered yet: <b>Doors</b> hangs one, <b>Sequence</b> times it.</p>")
                : tr("<p>Nothing here judges it yet: the station asks for what is missing.</p>");
  }
  verdicts_->setText(text);
  // The preview shows the design in hand.
  scratch_.start(document_.design(), QString());
  scratch_.cancel_tolerances();
  board_->update();
}

}  // namespace kranich::app
