// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/station_steps.h"

#include <QAbstractButton>
#include <QHBoxLayout>
#include <QPainter>
#include <algorithm>

#include "app/document/when_seen.h"
#include "app/drawing/step_row.h"
#include "app/theme.h"
#include "app/widgets/findings.h"

namespace kranich::app {

namespace {

//! A row of a list of steps: its state's sign, the piece, the text in two lines.
class StepButton : public QAbstractButton {
 public:
  StepButton(QWidget* parent, tasks::State state, const QString& piece, const QString& text)
      : QAbstractButton(parent), state_(state), piece_(piece), text_(text) {
    setCursor(Qt::PointingHandCursor);
    setText(piece.isEmpty() ? text : QStringLiteral("%1: %2").arg(piece, text));
    setAccessibleName(QStringLiteral("%1, %2").arg(this->text(), text_of(tasks::state_word(state))));
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
    draw_step_lines(p, QRectF(24, 3, width() - 28, height() - 6), 8.5, piece_, text_, t.ink);
  }

 private:
  tasks::State state_;
  QString piece_, text_;
};

}  // namespace

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
  const tasks::Progress& progress = journal_.progress();
  const std::string id(station_id(station_));
  const auto list = tasks::ready(progress, id);
  const int waits = tasks::waiting(progress, id);
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
      connect(none, &QPushButton::clicked, this,
              [this, key = std::string(q.question->key)] { journal_.set_without(key, true); });
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
