// SPDX-License-Identifier: GPL-3.0-or-later
//! Bench: the work itself. All steps in their order, the ladder of tests, the Book of what was done and seen,
//! the register of parts.
#include <QButtonGroup>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QListWidget>
#include <QPainter>
#include <QScrollBar>
#include <QStackedWidget>
#include <QStyledItemDelegate>
#include <QTableWidget>
#include <algorithm>
#include <cmath>

#include "app/document/journal.h"
#include "app/document/when_seen.h"
#include "app/drawing/step_row.h"
#include "app/drawing/work_panes.h"
#include "app/stations/page.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/bench_view.h"
#include "app/widgets/book_view.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/event_entry.h"
#include "app/widgets/list_table.h"
#include "app/widgets/steps.h"
#include "core/tasks/register.h"
#include "core/tasks/rows.h"
#include "core/tasks/trials.h"
#include "core/tasks/words.h"

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
    const auto state = static_cast<tasks::State>(index.data(state_role).toInt());
    draw_state(*p, {r.left() + 22, r.top() + 14}, 12, state);
    const double side = std::min(190.0, r.width() * 0.28);
    const bool quiet = state == tasks::State::waits || state == tasks::State::done ||
                       state == tasks::State::given || state == tasks::State::aside;
    draw_step_lines(*p, QRectF(r.left() + 38, r.top() + 4, r.width() - 48 - side, r.height() - 8), 9,
                    index.data(words_role).toString(), index.data(Qt::DisplayRole).toString(),
                    quiet ? t.grey : t.ink);
    p->setFont(text_font(8));
    p->setPen(state == tasks::State::again || state == tasks::State::off ? t.fails : t.grey);
    p->drawText(QRectF(r.right() - side - 4, r.top() + 4, side - 6, r.height() - 8),
                Qt::AlignRight | Qt::AlignTop | Qt::TextWordWrap, index.data(aside_role).toString());
    p->restore();
  }
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
    const std::pair<const char*, QString> names[]{
        {"bench-now", tr("Now")},   {"bench-all", tr("All")},           {"bench-ladder", tr("Ladder")},
        {"bench-book", tr("Book")}, {"bench-register", tr("Register")}, {"bench-trials", tr("Trials")}};
    for (int i = 0; i < 6; ++i) {
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
    book_ = new BookView(document_, stack_);
    stack_->addWidget(book_);
    stack_->addWidget(build_register());
    stack_->addWidget(build_trials());
    put_above(stack_, 64);
    ladder_ = board()->add(std::make_unique<LadderPane>(document), {});
    auto readings = std::make_unique<ReadingsPane>(document);
    readings_ = readings.get();
    board()->add(std::move(readings), {0, 0, 1, 1});

    heading(tr("This step"));
    card_ = put(new StepCard(document_, this));
    heading(tr("Something happened"), tr("landings, a failure, a try: one line at once"));
    event_ = put(new EventEntry(document_, this));
    fold(tr("Steps of your own"), tr("same columns as the table"), [this] {
      put(new ListTable(
          document_, "/steps",
          {{"id", tr("Id")},
           {"stage", tr("Stage")},
           {"when", tr("When")},
           {"per", tr("For each")},
           {"text", tr("What to do")},
           {"why", tr("Why")},
           {"hazard", tr("Hazard")},
           {"helpers", tr("Helpers")},
           {"gate", tr("Before")},
           {"reading", tr("Reading")},
           {"unit", tr("Unit")},
           {"predicted", tr("Foretold")},
           {"tolerance", tr("Off by")},
           {"sets", tr("Sets the number")},
           {"stop", tr("Stops")},
           {"rung", tr("Rung")},
           {"reopens", tr("Reopened by")},
           {"repeat", tr("Again")},
           {"choice", tr("Two schools")},
           {"needs", tr("Serves")}},
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
    connect(questions_, &QLabel::linkActivated, this, [this](const QString& link) {
      journal_.set_without(link.section(':', 1).toStdString(), link.startsWith("without:"));
    });
    problems_ = remark();
    problems_->setObjectName("bench-problems");
    finish();

    connect(views_, &QButtonGroup::idClicked, this, [this](int) { show_view(); });
    connect(find_, &QLineEdit::textChanged, this, [this] { refresh(); });
    connect(big, &QPushButton::clicked, this, [this] { (new BenchView(document_, this))->show(); });
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
  enum View { now, all, ladder, book, parts, trials };
  View view() const { return static_cast<View>(views_->checkedId()); }

  void show_view() {
    const View v = view();
    stack_->setVisible(v != ladder);
    stack_->setCurrentIndex(v == book ? 1 : v == parts ? 2 : v == trials ? 3 : 0);
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
      any = any || !tasks::row_of(journal_.history(), *task, piece_, i).points.empty();
    board()->setVisible(v == ladder || ((v == now || v == all) && any));
    const bool both = v == ladder && any;
    board()->set_share(ladder_, v != ladder ? QRectF() : both ? QRectF(0, 0, 1, 0.68) : QRectF(0, 0, 1, 1));
    board()->set_share(readings_, v != ladder ? QRectF(0, 0, 1, 1)
                                  : both      ? QRectF(0, 0.68, 1, 0.32)
                                              : QRectF());
  }

  //! A view that is one table to read: its page.
  QWidget* build_table(QTableWidget*& table, const char* id, const QString& name,
                       const QStringList& headings) {
    auto* page = new QWidget(this);
    auto* lines = new QVBoxLayout(page);
    lines->setContentsMargins(12, 0, 12, 8);
    table = new QTableWidget(0, static_cast<int>(headings.size()), page);
    table->setObjectName(QString::fromLatin1(id));
    table->setAccessibleName(name);
    table->setHorizontalHeaderLabels(headings);
    table->verticalHeader()->hide();
    table->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table->setShowGrid(false);
    lines->addWidget(table, 1);
    return page;
  }
  QWidget* build_register() {
    QWidget* page = build_table(register_, "bench-register-table", tr("Part register"),
                                {tr("What"), tr("Side"), tr("Pin or size"), tr("Angle"), tr("Turns"),
                                 tr("Mass"), tr("Price"), tr("State"), tr("Waits for")});
    register_->verticalHeader()->setDefaultSectionSize(23);
    return page;
  }
  QWidget* build_trials() {
    QWidget* page = build_table(
        trials_, "bench-trials-table", tr("Trial log"),
        {tr("Day, who"), tr("What was tried"), tr("Changed since the try before"), tr("What came of it")});
    trials_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    trials_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
    trials_->setWordWrap(true);
    return page;
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
      const auto first = tasks::ready(progress, "");
      if (!first.empty()) choose(first[0]->task->id, first[0]->piece.key);
    }
    if (view() == now || view() == all) fill_list(progress);
    if (view() == book) book_->fill(find_->text().trimmed());
    if (view() == parts) fill_register();
    if (view() == trials) fill_trials();
    event_->fill();
    QString asked;
    for (const auto& q : progress.questions) {
      asked += html(question_text(q));
      if (!q.question->none.empty())
        asked += QStringLiteral(" <a href='without:%1'>%2</a>")
                     .arg(text_of(q.question->key), html(text_of(q.question->none)));
      asked += "<br>";
    }
    for (const auto& w : document_.design().without)
      for (const auto& q : tasks::all_questions())
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

  void fill_list(const tasks::Progress& progress) {
    filling_ = true;
    const int scrolled = list_->verticalScrollBar()->value();
    list_->clear();
    const UnitSystem units = document_.units();
    const QString wanted = find_->text().trimmed();
    std::string stage;
    QListWidgetItem* current = nullptr;
    for (const auto& b : progress.boxes) {
      const bool open = b.state == tasks::State::open || b.state == tasks::State::again ||
                        b.state == tasks::State::off || b.state == tasks::State::tried;
      if (view() == now && (!open || (!b.gates.empty() && b.state == tasks::State::open))) continue;
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
          if (other.task->stage == stage && other.state != tasks::State::standing) {
            ++of;
            done += other.passed();
          }
        auto* head = new QListWidgetItem(text_of(tasks::stage_title(stage)), list_);
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
                    tr("%1 %2, %3").arg(piece, text, text_of(tasks::state_word(b.state))));
      QString aside;
      if (!b.changed.empty())
        aside = text_of(b.changed[0], units);
      else if (!b.gates.empty() && !b.passed())
        aside = tr("waits: %1").arg(text_of(b.gates[0].words, units));
      else if (b.last)
        aside = QStringLiteral("%1 %2").arg(text_of(std::string(b.last->day())), text_of(b.last->who));
      else if (!b.task->readings.empty()) {
        const auto f = tasks::foretold(journal_.look(), journal_.history(), *b.task, b.piece, 0, {});
        const Text should = tasks::should_read(b.task->readings[0], f);
        if (!should.empty())
          aside = QStringLiteral("%1: %2").arg(in_tongue(b.task->readings[0].name), text_of(should, units));
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

  void fill_register() {
    const auto rows = tasks::part_register(document_.design(), journal_.history());
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

  void fill_trials() {
    const UnitSystem units = document_.units();
    const QString wanted = find_->text().trimmed();
    trials_->setRowCount(0);
    for (const tasks::Trial& t : tasks::trial_log(journal_.look(), journal_.table(), journal_.history())) {
      const auto lines = [&](const std::vector<Text>& texts) {
        QStringList list;
        for (const Text& x : texts) list << text_of(x, units);
        return list.join("\n");
      };
      QString changed = lines(t.changed);
      if (changed.isEmpty()) changed = t.first ? tr("the first try") : tr("nothing that is known");
      QString result = lines(t.result);
      if (t.verdict == tasks::Compared::outside) result = tr("▲ off: %1").arg(result);
      if (t.verdict == tasks::Compared::within) result = tr("as foretold: %1").arg(result);
      const QString cells[]{
          tr("%1\n%2").arg(QString::fromUtf8(t.entry->day().data(), static_cast<int>(t.entry->day().size())),
                           text_of(t.entry->who)),
          sentence_of(t.what, units), changed, result};
      if (!wanted.isEmpty() && std::none_of(std::begin(cells), std::end(cells), [&](const QString& c) {
            return c.contains(wanted, Qt::CaseInsensitive);
          }))
        continue;
      const int row = trials_->rowCount();
      trials_->insertRow(row);
      for (int c = 0; c < 4; ++c) {
        auto* cell = new QTableWidgetItem(cells[c]);
        cell->setTextAlignment(Qt::AlignLeft | Qt::AlignTop);
        if (c == 3 && t.verdict == tasks::Compared::outside) cell->setForeground(Theme::now().fails);
        trials_->setItem(row, c, cell);
      }
    }
    trials_->resizeRowsToContents();
  }

  Journal& journal_;
  QButtonGroup* views_;
  QLineEdit* find_;
  QStackedWidget* stack_;
  QListWidget* list_;
  BookView* book_;
  QTableWidget *register_, *trials_;
  QLabel *problems_, *questions_;
  Pane* ladder_;
  ReadingsPane* readings_;
  StepCard* card_;
  EventEntry* event_;
  std::string task_, piece_;
  bool filling_ = false;
};

}  // namespace

StationPage* make_bench_page(Document& document) { return new BenchPage(document); }

}  // namespace kranich::app
