// SPDX-License-Identifier: GPL-3.0-or-later
//! Bench: the work itself. All steps in their order, the ladder of tests, the Book of what was done and seen,
//! the register of parts.
#include <QComboBox>
#include <QDialog>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QListWidget>
#include <QMessageBox>
#include <QPainter>
#include <QScrollBar>
#include <QShortcut>
#include <QStackedWidget>
#include <QStyledItemDelegate>
#include <QTableWidget>
#include <algorithm>
#include <cmath>
#include <set>

#include "app/document/journal.h"
#include "app/document/when_seen.h"
#include "app/drawing/work_panes.h"
#include "app/stations/page.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/list_table.h"
#include "app/widgets/steps.h"
#include "core/base/text.h"
#include "core/io/book_file.h"
#include "core/io/project_file.h"
#include "core/work/record.h"
#include "core/work/register.h"
#include "core/work/rows.h"

namespace kranich::app {
namespace {

enum Role { task_role = Qt::UserRole, piece_role, state_role, words_role, aside_role, heading_role };

//! Draws a step of the list: sign, piece, its text in two lines, what it waits for or should read.
class StepDelegate : public QStyledItemDelegate {
 public:
  using QStyledItemDelegate::QStyledItemDelegate;
  QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex& index) const override {
    return {200, index.data(heading_role).toBool() ? 28 : 42};
  }
  void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const Theme& t = Theme::now();
    p->save();
    p->setRenderHint(QPainter::Antialiasing);
    const QRectF r = option.rect;
    if (index.data(heading_role).toBool()) {
      p->setFont(text_font(10, true));
      p->setPen(t.ink);
      p->drawText(r.adjusted(10, 4, -10, 0), Qt::AlignLeft | Qt::AlignVCenter,
                  index.data(Qt::DisplayRole).toString());
      p->setFont(text_font(8));
      p->setPen(t.grey);
      p->drawText(r.adjusted(10, 4, -12, 0), Qt::AlignRight | Qt::AlignVCenter,
                  index.data(aside_role).toString());
      p->setPen(QPen(t.line, 1));
      p->drawLine(QPointF(r.left() + 10, r.bottom() - 1), QPointF(r.right() - 10, r.bottom() - 1));
      p->restore();
      return;
    }
    if (option.state & QStyle::State_Selected) {
      p->fillRect(r, t.card);
      p->fillRect(QRectF(r.left(), r.top(), 3, r.height()), t.accent);
    }
    const auto state = static_cast<work::State>(index.data(state_role).toInt());
    draw_state(*p, {r.left() + 22, r.top() + 14}, 12, state);
    const double side = std::min(190.0, r.width() * 0.28);
    const QRectF area(r.left() + 38, r.top() + 4, r.width() - 48 - side, r.height() - 8);
    const QString piece = index.data(words_role).toString();
    double x = 0;
    if (!piece.isEmpty()) {
      p->setFont(text_font(9, true));
      p->setPen(t.ink);
      p->drawText(QPointF(area.left(), area.top() + p->fontMetrics().ascent()), piece);
      x = p->fontMetrics().horizontalAdvance(piece) + 8;
    }
    p->setFont(text_font(9));
    const QFontMetrics m = p->fontMetrics();
    const QString text = index.data(Qt::DisplayRole).toString();
    QString first;
    for (const QString& word : text.split(' ')) {
      const QString more = first.isEmpty() ? word : first + ' ' + word;
      if (m.horizontalAdvance(more) > area.width() - x) break;
      first = more;
    }
    const bool quiet = state == work::State::waits || state == work::State::done ||
                       state == work::State::given || state == work::State::aside;
    p->setPen(quiet ? t.grey : t.ink);
    p->drawText(QPointF(area.left() + x, area.top() + m.ascent()), first);
    p->drawText(
        QPointF(area.left(), area.top() + m.lineSpacing() + m.ascent()),
        m.elidedText(text.mid(first.size()).trimmed(), Qt::ElideRight, static_cast<int>(area.width())));
    p->setFont(text_font(8));
    p->setPen(state == work::State::again || state == work::State::off ? t.fails : t.grey);
    p->drawText(QRectF(r.right() - side - 4, r.top() + 4, side - 6, r.height() - 8),
                Qt::AlignRight | Qt::AlignTop | Qt::TextWordWrap, index.data(aside_role).toString());
    p->restore();
  }
};

//! One step at a time in large letters, for a tablet or laptop on the bench: keys only.
class BigView : public QDialog {
 public:
  BigView(Document& document, QWidget* parent)
      : QDialog(parent), document_(document), journal_(document.journal()) {
    setObjectName("bench-view");
    setWindowTitle(QObject::tr("At the bench"));
    setAttribute(Qt::WA_DeleteOnClose);
    resize(1280, 800);
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(60, 40, 60, 30);
    text_ = new QLabel(this);
    text_->setObjectName("bench-view-text");
    text_->setWordWrap(true);
    text_->setTextFormat(Qt::RichText);
    text_->setFont(text_font(24));
    text_->setAlignment(Qt::AlignTop);
    all->addWidget(text_, 1);
    entry_ = new QLineEdit(this);
    entry_->setObjectName("bench-view-entry");
    entry_->setAccessibleName(QObject::tr("Reading, or what you saw"));
    entry_->setFont(text_font(24));
    all->addWidget(entry_);
    keys_ = new QLabel(QObject::tr("<b>Enter</b> the reading, then done · <b>Page down</b> next · <b>Page "
                                   "up</b> back · <b>Esc</b> closes"),
                       this);
    keys_->setFont(text_font(14));
    all->addWidget(keys_);
    entry_->installEventFilter(this);
    connect(entry_, &QLineEdit::returnPressed, this, [this] { take(); });
    begin();
  }

 protected:
  bool eventFilter(QObject* object, QEvent* event) override {
    if (event->type() == QEvent::KeyPress) {
      const auto* key = static_cast<QKeyEvent*>(event);
      if (key->key() == Qt::Key_PageDown || key->key() == Qt::Key_PageUp) {
        go(key->key() == Qt::Key_PageDown ? 1 : -1);
        return true;
      }
    }
    return QDialog::eventFilter(object, event);
  }

 private:
  void begin() {
    boxes_.clear();
    for (const auto* b : work::ready(journal_.progress(), "")) boxes_.emplace_back(b->task->id, b->piece.key);
    at_ = 0;
    show_step();
  }
  void go(int by) {
    const int last = static_cast<int>(boxes_.size()) - 1;
    at_ = std::clamp(at_ + by, 0, std::max(0, last));
    show_step();
  }
  const work::Box* box() const {
    return boxes_.empty() ? nullptr
                          : journal_.progress().find(boxes_[static_cast<size_t>(at_)].first,
                                                     boxes_[static_cast<size_t>(at_)].second);
  }
  void show_step() {
    typed_.clear();
    choice_.clear();
    show_now();
  }
  void show_now() {
    const auto* b = box();
    entry_->clear();
    entry_->setFocus();
    if (!b) {
      text_->setText(QObject::tr("Nothing is open. What waits is listed on Bench."));
      return;
    }
    const auto& task = *b->task;
    QString s = QObject::tr("<p style='font-size:14pt'>%1 of %2 · %3</p>")
                    .arg(at_ + 1)
                    .arg(boxes_.size())
                    .arg(text_of(work::stage_title(task.stage)));
    if (!b->piece.words.empty())
      s += QStringLiteral("<p><b>%1</b></p>").arg(html(sentence_of(b->piece.words, document_.units())));
    s += QStringLiteral("<p>%1</p>")
             .arg(html(step_text(journal_, task, b->piece, task.text, document_.units())));
    if (!task.why.empty())
      s += QStringLiteral("<p style='font-size:16pt'><i>%1</i></p>").arg(html(text_of(task.why)));
    for (const auto* h : task.hazards)
      s += QStringLiteral("<p style='font-size:16pt; color:%1'><b>%2</b></p>")
               .arg(Theme::now().fails.name(), html(text_of(h->words)));
    if (!task.stop.empty())
      s += QObject::tr("<p style='font-size:16pt'><b>Stop at:</b> %1</p>").arg(html(text_of(task.stop)));
    for (size_t i = 0; i < typed_.size(); ++i)
      s += QStringLiteral("<p style='font-size:16pt'>%1: <b>%2</b></p>")
               .arg(html(text_of(typed_[i].name)), html(read_text(typed_[i], document_.units())));
    if (asks_side(task)) {
      QStringList sides;
      for (size_t i = 0; i < task.choice->sides.size(); ++i)
        sides << QStringLiteral("%1 %2").arg(i + 1).arg(text_of(task.choice->sides[i]));
      entry_->setPlaceholderText(
          QStringLiteral("%1: %2").arg(text_of(task.choice->question), sides.join(", ")));
    } else if (typed_.size() < task.readings.size()) {
      const auto& r = task.readings[typed_.size()];
      const auto f =
          work::foretold(journal_.look(), journal_.history(), task, b->piece, typed_.size(), typed_);
      const QString should = foretold_text(r, f, document_.units());
      entry_->setPlaceholderText(
          should.isEmpty() ? text_of(r.name) : QObject::tr("%1, should be %2").arg(text_of(r.name), should));
    } else {
      entry_->setPlaceholderText(QObject::tr("Enter: done; or type what you saw"));
    }
    text_->setText(s);
  }
  void take() {
    const auto* b = box();
    if (!b) return;
    const auto& task = *b->task;
    const QString typed = entry_->text().trimmed();
    if (asks_side(task)) {
      const int side = typed.toInt();
      if (side >= 1 && side <= static_cast<int>(task.choice->sides.size()))
        choice_ = task.choice->sides[static_cast<size_t>(side - 1)];
      return show_now();
    }
    if (typed_.size() < task.readings.size()) {
      const auto& r = task.readings[typed_.size()];
      work::Read read;
      read.name = r.name;
      read.unit = r.unit.symbol;
      if (r.unit.form == work::Form::number && !typed.isEmpty()) {
        const auto parsed =
            parse_quantity(typed.toStdString(), r.unit.kind.value_or(Kind::factor), document_.units());
        if (const auto* wrong = std::get_if<ParseError>(&parsed)) {
          keys_->setText(html(text_of(wrong->message)));
          return;
        }
        read.value = std::get<ParsedQuantity>(parsed).si;
      } else {
        read.text = typed.toStdString();
      }
      typed_.push_back(std::move(read));
      return show_now();
    }
    work::Entry e = journal_.begun(work::Mark::done);
    e.note = typed.toStdString();
    for (auto& r : typed_)
      if (std::isfinite(r.value) || !r.text.empty()) e.readings.push_back(r);
    e.choice = choice_;
    if (const auto wanted = work::still_wanted(task, e); !wanted.empty()) {
      keys_->setText(tr("%1 is wanted: it is what proves the step.").arg(html(text_of(wanted[0]))));
      return show_step();
    }
    if (const auto why = journal_.tick(task, b->piece, e)) {
      keys_->setText(html(*why));
      return;
    }
    begin();
  }

  Document& document_;
  Journal& journal_;
  QLabel *text_, *keys_;
  QLineEdit* entry_;
  std::vector<std::pair<std::string, std::string>> boxes_;
  bool asks_side(const work::Task& task) const { return task.choice && choice_.empty(); }
  work::Entered typed_;
  std::string choice_;
  int at_ = 0;
};

class BenchPage : public StationPage {
 public:
  explicit BenchPage(Document& document)
      : StationPage(document, Station::bench), journal_(document.journal()) {
    set_panel_width(400);
    auto* top = new QWidget(this);
    auto* bar = new QHBoxLayout(top);
    bar->setContentsMargins(12, 8, 12, 4);
    views_ = new QButtonGroup(this);
    const std::pair<const char*, QString> names[]{{"bench-now", tr("Now")},
                                                  {"bench-all", tr("All")},
                                                  {"bench-ladder", tr("Ladder")},
                                                  {"bench-book", tr("Book")},
                                                  {"bench-register", tr("Register")}};
    for (int i = 0; i < 5; ++i) {
      auto* b = new QPushButton(names[i].second, top);
      b->setObjectName(QString::fromLatin1(names[i].first));
      b->setCheckable(true);
      b->setChecked(i == 0);
      views_->addButton(b, i);
      bar->addWidget(b);
    }
    find_ = new QLineEdit(top);
    find_->setObjectName("bench-find");
    find_->setAccessibleName(tr("Find in steps and Book"));
    find_->setPlaceholderText(tr("Find in steps and Book"));
    find_->setClearButtonEnabled(true);
    bar->addWidget(find_, 1);
    auto* big = new QPushButton(tr("Large letters"), top);
    big->setObjectName("bench-big");
    big->setToolTip(tr("One step at a time, keys only: for a tablet or laptop on the bench"));
    bar->addWidget(big);
    auto* print = new QPushButton(tr("Print …"), top);
    print->setObjectName("bench-print");
    print->setToolTip(tr("Check lists, ladder, service card, register, trial form"));
    bar->addWidget(print);
    put_above(top, 0);

    stack_ = new QStackedWidget(this);
    list_ = new QListWidget(stack_);
    list_->setObjectName("bench-list");
    list_->setAccessibleName(tr("Steps"));
    list_->setItemDelegate(new StepDelegate(list_));
    list_->setUniformItemSizes(false);
    list_->setFrameShape(QFrame::NoFrame);
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    stack_->addWidget(list_);
    stack_->addWidget(build_book());
    stack_->addWidget(build_register());
    put_above(stack_, 64);
    ladder_ = board()->add(std::make_unique<LadderPane>(document), {});
    auto readings = std::make_unique<ReadingsPane>(document);
    readings_ = readings.get();
    board()->add(std::move(readings), {0, 0, 1, 1});

    heading(tr("This step"));
    card_ = put(new StepCard(document_, this));
    build_event();
    fold(tr("Steps of your own"), tr("same columns as the table"), [this] {
      put(new ListTable(
          document_, "/steps",
          {{"id", tr("Id")},
           {"stage", tr("Stage")},
           {"when", tr("When")},
           {"per", tr("For each")},
           {"text", tr("What to do")},
           {"why", tr("Why")},
           {"gate", tr("Before")},
           {"reading", tr("Reading")},
           {"unit", tr("Unit")},
           {"predicted", tr("Foretold")},
           {"tolerance", tr("Off by")},
           {"reopens", tr("Reopened by")},
           {"repeat", tr("Again")}},
          [](Design& d) {
            OwnTask t;
            t.id = "my.step-" + std::to_string(d.own_tasks.size() + 1);
            t.text = "what to do";
            d.own_tasks.push_back(t);
          },
          this));
    });
    questions_ = remark();
    questions_->setObjectName("bench-questions");
    connect(questions_, &QLabel::linkActivated, this, [this](const QString& link) { answer(link); });
    problems_ = remark();
    problems_->setObjectName("bench-problems");
    finish();

    connect(views_, &QButtonGroup::idClicked, this, [this](int) { show_view(); });
    connect(find_, &QLineEdit::textChanged, this, [this] { refresh(); });
    connect(big, &QPushButton::clicked, this, [this] { (new BigView(document_, this))->show(); });
    connect(print, &QPushButton::clicked, this, [this] { make_shop_dialog(document_, window())->show(); });
    connect(list_, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* item) {
      if (!filling_ && item && !item->data(heading_role).toBool())
        choose(item->data(task_role).toString().toStdString(),
               item->data(piece_role).toString().toStdString());
    });
    connect(&journal_, &Journal::chosen_changed, this, [this] {
      const auto& [task, piece] = journal_.chosen();
      if (task.empty()) return;
      choose(task, piece);
      refresh();
    });
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed);
    refresh_when_seen(
        this, &journal_, [this] { refresh(); }, &Journal::changed);
    refresh();
    show_view();
  }

 private:
  enum View { now, all, ladder, book, parts };
  View view() const { return static_cast<View>(views_->checkedId()); }

  void show_view() {
    const View v = view();
    stack_->setVisible(v != ladder);
    stack_->setCurrentIndex(v == book ? 1 : v == parts ? 2 : 0);
    board()->setMaximumHeight(v == ladder ? QWIDGETSIZE_MAX : 230);
    board()->setMinimumHeight(v == ladder ? 320 : 200);
    show_readings();
    refresh();
  }

  //! The row of readings takes its place where there is one.
  void show_readings() {
    const View v = view();
    const auto* task = journal_.table().find(task_);
    bool any = false;
    for (size_t i = 0; task && i < task->readings.size(); ++i)
      any = any || !work::row_of(journal_.history(), *task, piece_, i).points.empty();
    board()->setVisible(v == ladder || ((v == now || v == all) && any));
    const bool both = v == ladder && any;
    board()->set_share(ladder_, v != ladder ? QRectF() : both ? QRectF(0, 0, 1, 0.68) : QRectF(0, 0, 1, 1));
    board()->set_share(readings_, v != ladder ? QRectF(0, 0, 1, 1)
                                  : both      ? QRectF(0, 0.68, 1, 0.32)
                                              : QRectF());
  }

  QWidget* build_book() {
    auto* page = new QWidget(this);
    auto* lines = new QVBoxLayout(page);
    lines->setContentsMargins(12, 0, 12, 8);
    book_ = new QTableWidget(0, 5, page);
    book_->setObjectName("bench-book-table");
    book_->setAccessibleName(tr("The Book"));
    book_->setHorizontalHeaderLabels({tr("Day"), tr("Who"), tr("What"), tr("For"), tr("Read, said, seen")});
    book_->horizontalHeader()->setSectionResizeMode(4, QHeaderView::Stretch);
    book_->verticalHeader()->hide();
    book_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    book_->setSelectionBehavior(QAbstractItemView::SelectRows);
    book_->setSelectionMode(QAbstractItemView::SingleSelection);
    book_->setShowGrid(false);
    book_->setWordWrap(true);
    lines->addWidget(book_, 1);
    auto* buttons = new QHBoxLayout;
    sums_ = new QLabel(page);
    sums_->setObjectName("bench-sums");
    sums_->setFont(text_font(8.5));
    buttons->addWidget(sums_, 1);
    const auto button = [&](const char* id, const QString& words, auto does) {
      auto* b = new QPushButton(words, page);
      b->setObjectName(QString::fromLatin1(id));
      connect(b, &QPushButton::clicked, this, does);
      buttons->addWidget(b);
    };
    strike_ = new QLineEdit(page);
    strike_->setObjectName("bench-strike-reason");
    strike_->setAccessibleName(tr("Why an entry does not count"));
    strike_->setPlaceholderText(tr("why it does not count"));
    strike_->setMaximumWidth(180);
    buttons->addWidget(strike_);
    button("bench-strike", tr("Strike out"), [this] { strike(); });
    button("bench-csv-out", tr("CSV out …"), [this] { csv_out(); });
    button("bench-csv-in", tr("CSV in …"), [this] { csv_in(); });
    lines->addLayout(buttons);
    return page;
  }

  QWidget* build_register() {
    auto* page = new QWidget(this);
    auto* lines = new QVBoxLayout(page);
    lines->setContentsMargins(12, 0, 12, 8);
    register_ = new QTableWidget(0, 9, page);
    register_->setObjectName("bench-register-table");
    register_->setAccessibleName(tr("Part register"));
    register_->setHorizontalHeaderLabels({tr("What"), tr("Side"), tr("Pin or size"), tr("Angle"), tr("Turns"),
                                          tr("Mass"), tr("Price"), tr("State"), tr("Waits for")});
    register_->verticalHeader()->setDefaultSectionSize(23);
    register_->verticalHeader()->hide();
    register_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    register_->setShowGrid(false);
    lines->addWidget(register_, 1);
    return page;
  }

  void build_event() {
    heading(tr("Something happened"), tr("landings, a failure, a try: one line at once"));
    event_ = new QComboBox(this);
    event_->setObjectName("event-sort");
    event_->setAccessibleName(tr("What happened"));
    event_->addItem(tr("A note"), QString());
    for (const auto& e : work::all_events()) event_->addItem(text_of(e.words), text_of(e.name));
    put(event_);
    const auto line = [&](const char* id, const QString& words) {
      auto* field = new QLineEdit(this);
      field->setObjectName(QString::fromLatin1(id));
      field->setPlaceholderText(words);
      field->setAccessibleName(words);
      return put(field);
    };
    event_leg_ = new QComboBox(this);
    event_leg_->setObjectName("event-leg");
    event_leg_->setAccessibleName(tr("To which leg"));
    put(event_leg_);
    event_what_ = line("event-what", tr("Which part"));
    event_from_ = line("event-from", tr("Changed from"));
    event_to_ = line("event-to", tr("to"));
    event_count_ = line("event-count", tr("How many landings"));
    event_cost_ = line("event-cost", tr("Cost"));
    event_note_ = line("event-note", tr("What it was like, what you saw"));
    auto* write = button(tr("Write it down"), tr("One line in the Book, with day, name and build state"));
    write->setObjectName("event-write");
    connect(write, &QPushButton::clicked, this, [this] { write_event(); });
    connect(event_, &QComboBox::currentIndexChanged, this, [this] { show_event(); });
    event_said_ = remark();
    event_said_->setObjectName("event-said");
    show_event();
  }
  void show_event() {
    const QString sort = event_->currentData().toString();
    const bool landing = sort == "landing", part = sort == "part" || sort == "failure" || sort == "repair" ||
                                                   sort == "purchase" || sort == "change";
    event_count_->setVisible(landing);
    event_what_->setVisible(part);
    event_from_->setVisible(sort == "change" || sort == "part");
    event_to_->setVisible(sort == "change" || sort == "part");
    event_cost_->setVisible(sort == "purchase" || sort == "repair" || sort == "part");
    event_leg_->setVisible(!sort.isEmpty() && sort != "landing" && sort != "purchase" && sort != "battery" &&
                           sort != "moved");
  }
  void write_event() {
    work::Entry e =
        journal_.begun(event_->currentData().toString().isEmpty() ? work::Mark::note : work::Mark::event);
    e.event = event_->currentData().toString().toStdString();
    e.note = event_note_->text().trimmed().toStdString();
    if (event_what_->isVisibleTo(this)) e.what = event_what_->text().trimmed().toStdString();
    if (event_from_->isVisibleTo(this)) e.from = event_from_->text().trimmed().toStdString();
    if (event_to_->isVisibleTo(this)) e.to = event_to_->text().trimmed().toStdString();
    if (event_leg_->isVisibleTo(this)) {
      e.piece = event_leg_->currentData().toString().toStdString();
      if (!e.piece.empty()) e.piece_words = event_leg_->currentText().toStdString();
    }
    if (event_count_->isVisibleTo(this)) {
      bool good = false;
      e.count = event_count_->text().toInt(&good);
      if (!good || e.count < 1 || e.count > 1000) {
        event_said_->setText(
            tr("How many landings: a number from 1 to 1000, is “%1”.").arg(html(event_count_->text())));
        return;
      }
    }
    if (event_cost_->isVisibleTo(this) && !event_cost_->text().isEmpty()) {
      bool good = false;
      e.cost = event_cost_->text().toDouble(&good);
      if (!good) {
        event_said_->setText(tr("Cost: a number, is “%1”.").arg(html(event_cost_->text())));
        return;
      }
    }
    if (e.mark == work::Mark::note && e.note.empty()) {
      event_said_->setText(tr("A note says something: write it above."));
      return;
    }
    if ((e.event == "failure" || e.event == "part") && e.what.empty()) {
      event_said_->setText(tr("Which part? Three failures of the same one are told by its name."));
      return;
    }
    if (const auto why = journal_.write(e)) {
      event_said_->setText(html(*why));
      return;
    }
    for (QLineEdit* f : {event_what_, event_from_, event_to_, event_count_, event_cost_, event_note_})
      f->clear();
    event_said_->setText(tr("written into the Book"));
  }

  void strike() {
    const auto items = book_->selectedItems();
    if (items.isEmpty() || strike_->text().trimmed().isEmpty()) return;
    work::Entry e = journal_.begun(work::Mark::struck);
    e.strikes = book_->item(items[0]->row(), 0)->data(Qt::UserRole).toString().toStdString();
    e.reason = strike_->text().trimmed().toStdString();
    if (!journal_.write(e)) strike_->clear();
  }
  void csv_out() {
    const QString path = QFileDialog::getSaveFileName(this, tr("The Book as CSV"), "book.csv");
    if (path.isEmpty()) return;
    if (const auto why = write_file_atomically(path.toStdString(), book_to_csv(journal_.book())))
      QMessageBox::warning(this, tr("The Book"), QString::fromStdString(*why));
  }
  void csv_in() {
    const QString path =
        QFileDialog::getOpenFileName(this, tr("Entries from CSV"), {}, tr("Tables (*.csv);;All files (*)"));
    if (path.isEmpty()) return;
    const auto read = book_from_csv(read_text_file(path.toStdString(), size_t{64} << 20).value_or(""));
    int taken = 0;
    const auto why = journal_.add_all(read.entries, &taken);
    QString said = tr("Entries taken over: %1.").arg(taken);
    for (size_t i = 0; i < read.faults.size() && i < 8; ++i)
      said += QStringLiteral("\n%1: %2").arg(text_of(read.faults[i].where), text_of(read.faults[i].what));
    if (why) said += "\n" + *why;
    sums_->setText(said);
  }

  void answer(const QString& link) {
    if (link.startsWith("without:"))
      document_.edit(tr("Answer a question"), [&](Design& d) {
        Without w;
        w.question = link.mid(8).toStdString();
        d.without.push_back(w);
      });
    else if (link.startsWith("again:"))
      document_.edit(tr("Ask again"), [&](Design& d) {
        std::erase_if(d.without, [&](const Without& w) { return w.question == link.mid(6).toStdString(); });
      });
  }

  void choose(const std::string& task, const std::string& piece) {
    task_ = task;
    piece_ = piece;
    card_->show_box(task, piece);
    readings_->task = task;
    readings_->piece = piece;
    show_readings();
    board()->update();
  }

  void refresh() {
    const auto& progress = journal_.progress();
    if (task_.empty() || !progress.find(task_, piece_)) {
      const auto first = work::ready(progress, "");
      if (!first.empty()) choose(first[0]->task->id, first[0]->piece.key);
    }
    if (view() == now || view() == all) fill_list(progress);
    if (view() == book) fill_book();
    if (view() == parts) fill_register();
    const QString was = event_leg_->currentData().toString();
    event_leg_->clear();
    event_leg_->addItem(tr("the aircraft, or no leg"), QString());
    for (const auto& p : work::pieces_of(document_.design(), work::Per::leg))
      event_leg_->addItem(sentence_of(p.words, document_.units()), text_of(p.key));
    event_leg_->setCurrentIndex(std::max(0, event_leg_->findData(was)));
    QString asked;
    for (const auto& q : progress.questions) {
      asked += html(question_text(q));
      if (!q.question->none.empty())
        asked += QStringLiteral(" <a href='without:%1'>%2</a>")
                     .arg(text_of(q.question->key), html(text_of(q.question->none)));
      asked += "<br>";
    }
    for (const auto& w : document_.design().without)
      for (const auto& q : work::all_questions())
        if (q.key == w.question && !q.none.empty())
          asked += tr("%1: <a href='again:%2'>ask again</a><br>").arg(html(text_of(q.none)), text_of(q.key));
    questions_->setText(asked.isEmpty() ? QString()
                                        : tr("<b>What decides further steps</b><br>%1").arg(asked));
    questions_->setVisible(!asked.isEmpty());
    QString trouble;
    for (const Text& r : progress.remarks)
      trouble += QStringLiteral("<b>%1</b><br>").arg(html(text_of(r, document_.units())));
    for (const QString& p : journal_.problems()) trouble += html(p) + "<br>";
    problems_->setText(trouble);
    problems_->setVisible(!trouble.isEmpty());
    board()->update();
  }

  void fill_list(const work::Progress& progress) {
    filling_ = true;
    const int scrolled = list_->verticalScrollBar()->value();
    list_->clear();
    const UnitSystem units = document_.units();
    const QString wanted = find_->text().trimmed();
    std::string stage;
    QListWidgetItem* current = nullptr;
    for (const auto& b : progress.boxes) {
      const bool open = b.state == work::State::open || b.state == work::State::again ||
                        b.state == work::State::off || b.state == work::State::tried;
      if (view() == now && (!open || (!b.gates.empty() && b.state == work::State::open))) continue;
      const QString text = step_text(journal_, *b.task, b.piece, b.task->text, units);
      const QString piece = b.piece.words.empty() ? QString() : sentence_of(b.piece.words, units);
      if (!wanted.isEmpty() && !text.contains(wanted, Qt::CaseInsensitive) &&
          !piece.contains(wanted, Qt::CaseInsensitive) &&
          !text_of(b.task->id).contains(wanted, Qt::CaseInsensitive))
        continue;
      if (b.task->stage != stage) {
        stage = b.task->stage;
        int done = 0, of = 0;
        for (const auto& other : progress.boxes)
          if (other.task->stage == stage && other.state != work::State::standing) {
            ++of;
            done += other.passed();
          }
        auto* head = new QListWidgetItem(text_of(work::stage_title(stage)), list_);
        head->setData(heading_role, true);
        head->setData(aside_role, of ? tr("%1 of %2 done").arg(done).arg(of) : QString());
        head->setFlags(Qt::ItemIsEnabled);
      }
      auto* item = new QListWidgetItem(text, list_);
      item->setData(task_role, text_of(b.task->id));
      item->setData(piece_role, text_of(b.piece.key));
      item->setData(state_role, static_cast<int>(b.state));
      item->setData(words_role, piece);
      item->setData(Qt::AccessibleTextRole,
                    tr("%1 %2, %3").arg(piece, text, text_of(work::state_word(b.state))));
      QString aside;
      if (!b.changed.empty())
        aside = text_of(b.changed[0], units);
      else if (!b.gates.empty() && !b.passed())
        aside = tr("waits: %1").arg(text_of(b.gates[0].words, units));
      else if (b.last)
        aside = QStringLiteral("%1 %2").arg(text_of(std::string(b.last->day())), text_of(b.last->who));
      else if (!b.task->readings.empty()) {
        const auto f = work::foretold(journal_.look(), journal_.history(), *b.task, b.piece, 0, {});
        const QString should = foretold_text(b.task->readings[0], f, units);
        if (!should.isEmpty())
          aside = QStringLiteral("%1: %2").arg(text_of(b.task->readings[0].name), should);
      }
      item->setData(aside_role, aside);
      if (b.task->id == task_ && b.piece.key == piece_) current = item;
    }
    if (list_->count() == 0) {
      auto* head = new QListWidgetItem(wanted.isEmpty() ? tr("Nothing is open now: see All for what waits.")
                                                        : tr("No step says “%1”.").arg(wanted),
                                       list_);
      head->setData(heading_role, true);
      head->setFlags(Qt::ItemIsEnabled);
    }
    if (current) list_->setCurrentItem(current);
    list_->verticalScrollBar()->setValue(scrolled);
    if (current) list_->scrollToItem(current);
    // Its stage's heading with it, where it is the first of it.
    if (current && list_->row(current) == 1) list_->scrollToTop();
    filling_ = false;
  }

  void fill_book() {
    const QString wanted = find_->text().trimmed();
    // By their times: two books laid together stand in any order.
    std::vector<work::Entry> entries = journal_.book().entries;
    std::stable_sort(entries.begin(), entries.end(),
                     [](const work::Entry& a, const work::Entry& b) { return a.at < b.at; });
    std::set<std::string> struck;
    double hours = 0, cost = 0;
    for (const auto& e : entries)
      if (e.mark == work::Mark::struck) struck.insert(e.strikes);
    book_->setRowCount(0);
    const UnitSystem units = document_.units();
    for (auto e = entries.rbegin(); e != entries.rend(); ++e) {
      const bool out = struck.count(e->id) > 0;
      if (!out) {
        hours += work::hours_of(*e);
        cost += work::cost_of(*e);
      }
      QString what = text_of(std::string(work::mark_names[static_cast<size_t>(e->mark)]));
      if (!e->task.empty()) what = QStringLiteral("%1 · %2").arg(text_of(e->task), what);
      if (const auto* sort = work::find_event(e->event)) what = text_of(sort->words);
      if (!e->what.empty()) what += QStringLiteral(": %1").arg(text_of(e->what));
      QStringList said;
      for (const auto& r : e->readings) {
        QString one = QStringLiteral("%1 %2").arg(text_of(r.name), read_text(r, units));
        if (r.compared == work::Compared::outside) one += tr(" (outside)");
        said << one;
      }
      if (!e->from.empty() || !e->to.empty()) said << tr("%1 → %2").arg(text_of(e->from), text_of(e->to));
      if (e->count) said << (e->count == 1 ? tr("1 landing") : tr("%1 landings").arg(e->count));
      for (const std::string* s : {&e->choice, &e->reason, &e->note, &e->source})
        if (!s->empty()) said << text_of(*s);
      const auto reads = [&](std::string_view unit) {
        return std::any_of(e->readings.begin(), e->readings.end(),
                           [&](const work::Read& r) { return r.unit == unit; });
      };
      if (e->hours != 0 && !reads("h")) said << tr("%1 h").arg(e->hours);
      if (e->cost != 0 && !reads("money")) said << tr("cost %1").arg(e->cost);
      for (const auto& p : e->pictures)
        said << (QFileInfo::exists(journal_.picture_path(p))
                     ? tr("picture %1").arg(text_of(p))
                     : tr("picture %1 (the file is missing)").arg(text_of(p)));
      const QString row_text =
          QStringList{text_of(e->at), text_of(e->who), what, text_of(e->piece_words), said.join("; ")}.join(
              ' ');
      if (!wanted.isEmpty() && !row_text.contains(wanted, Qt::CaseInsensitive)) continue;
      const int row = book_->rowCount();
      book_->insertRow(row);
      const QString cells[]{text_of(std::string(e->day())), text_of(e->who), what, text_of(e->piece_words),
                            said.join("; ")};
      for (int c = 0; c < 5; ++c) {
        auto* item = new QTableWidgetItem(cells[c]);
        item->setToolTip(cells[c]);
        item->setTextAlignment(Qt::AlignLeft | Qt::AlignTop);
        if (out) {
          QFont f = text_font(9);
          f.setStrikeOut(true);
          item->setFont(f);
          item->setForeground(Theme::now().grey);
        }
        book_->setItem(row, c, item);
      }
      book_->item(row, 0)->setData(Qt::UserRole, text_of(e->id));
    }
    book_->resizeRowsToContents();
    for (int c = 0; c < 4; ++c) book_->resizeColumnToContents(c);
    book_->setColumnWidth(2, std::min(book_->columnWidth(2), 220));
    sums_->setText(tr("%1 entries · %2 hours · cost %3 · %4")
                       .arg(entries.size())
                       .arg(hours)
                       .arg(cost)
                       .arg(journal_.on_disk() ? QFileInfo(journal_.file()).fileName()
                                               : tr("kept with the project once it is saved")));
  }

  void fill_register() {
    const auto rows = work::part_register(document_.design(), journal_.progress(), journal_.history());
    register_->setRowCount(static_cast<int>(rows.size()));
    const auto say = [&](double si, Kind kind) {
      return std::isfinite(si) ? document_.say(si, kind) : QStringLiteral("–");
    };
    for (size_t i = 0; i < rows.size(); ++i) {
      const auto& r = rows[i];
      const QString cells[]{sentence_of(r.what, document_.units()),
                            text_of(r.side, document_.units()),
                            say(r.size, Kind::length),
                            say(r.angle, Kind::angle),
                            text_of(r.turns, document_.units()),
                            say(r.mass, Kind::mass),
                            std::isfinite(r.price) ? QString::number(r.price) : QStringLiteral("–"),
                            text_of(r.state, document_.units()),
                            text_of(r.waits_for, document_.units())};
      for (int c = 0; c < 9; ++c) register_->setItem(static_cast<int>(i), c, new QTableWidgetItem(cells[c]));
    }
    for (int c = 0; c < 9; ++c) register_->resizeColumnToContents(c);
  }

  Journal& journal_;
  QButtonGroup* views_;
  QLineEdit *find_, *strike_;
  QStackedWidget* stack_;
  QListWidget* list_;
  QTableWidget *book_, *register_;
  QLabel *sums_, *problems_, *questions_, *event_said_;
  Pane* ladder_;
  ReadingsPane* readings_;
  StepCard* card_;
  QComboBox *event_, *event_leg_;
  QLineEdit *event_what_, *event_from_, *event_to_, *event_count_, *event_cost_, *event_note_;
  std::string task_, piece_;
  bool filling_ = false;
};

}  // namespace

StationPage* make_bench_page(Document& document) { return new BenchPage(document); }

}  // namespace kranich::app
