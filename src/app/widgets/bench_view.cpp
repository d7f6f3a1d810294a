// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/bench_view.h"

#include <QKeyEvent>
#include <QVBoxLayout>
#include <algorithm>

#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/findings.h"
#include "app/widgets/steps.h"
#include "core/tasks/words.h"

namespace kranich::app {

BenchView::BenchView(Document& document, QWidget* parent)
    : QDialog(parent), document_(document), journal_(document.journal()) {
  setObjectName("bench-view");
  setWindowTitle(tr("At the bench"));
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
  entry_->setAccessibleName(tr("Reading, or what you saw"));
  entry_->setFont(text_font(24));
  all->addWidget(entry_);
  said_ = new QLabel(this);
  said_->setObjectName("bench-view-said");
  said_->setFont(text_font(14));
  said_->setWordWrap(true);
  said_->setStyleSheet(QStringLiteral("color:%1").arg(Theme::now().fails.name()));
  all->addWidget(said_);
  auto* keys = new QLabel(tr("<b>Enter</b> the reading, then done · <b>Page down</b> next · <b>Page up</b> "
                             "back · <b>Esc</b> closes"),
                          this);
  keys->setFont(text_font(14));
  all->addWidget(keys);
  entry_->installEventFilter(this);
  connect(entry_, &QLineEdit::returnPressed, this, [this] { take(); });
  begin();
}

bool BenchView::eventFilter(QObject* object, QEvent* event) {
  if (event->type() == QEvent::KeyPress) {
    const auto* key = static_cast<QKeyEvent*>(event);
    if (key->key() == Qt::Key_PageDown || key->key() == Qt::Key_PageUp) {
      go(key->key() == Qt::Key_PageDown ? 1 : -1);
      return true;
    }
  }
  return QDialog::eventFilter(object, event);
}

void BenchView::begin() {
  boxes_.clear();
  for (const auto* b : tasks::ready(journal_.progress(), "")) boxes_.emplace_back(b->task->id, b->piece.key);
  at_ = 0;
  show_step();
}

void BenchView::go(int by) {
  const int last = static_cast<int>(boxes_.size()) - 1;
  at_ = std::clamp(at_ + by, 0, std::max(0, last));
  show_step();
}

const tasks::Box* BenchView::box() const {
  if (boxes_.empty()) return nullptr;
  const auto& [task, piece] = boxes_[static_cast<size_t>(at_)];
  return journal_.progress().find(task, piece);
}

void BenchView::show_step() {
  reading_ = 0;
  typed_.clear();
  choice_.clear();
  said_->clear();
  show_now();
}

void BenchView::show_now() {
  const auto* b = box();
  entry_->clear();
  entry_->setFocus();
  if (!b) {
    text_->setText(tr("Nothing is open. What waits is listed on Bench."));
    return;
  }
  const auto& task = *b->task;
  const UnitSystem units = document_.units();
  const auto filled = [&](const std::string& text) {
    return html(step_text(journal_, task, b->piece, text, units));
  };
  QString s = tr("<p style='font-size:14pt'>%1 of %2 · %3</p>")
                  .arg(at_ + 1)
                  .arg(boxes_.size())
                  .arg(text_of(tasks::stage_title(task.stage)));
  if (!b->piece.words.empty())
    s += QStringLiteral("<p><b>%1</b></p>").arg(html(sentence_of(b->piece.words, units)));
  s += QStringLiteral("<p>%1</p>").arg(filled(task.text));
  if (!task.why.empty()) s += QStringLiteral("<p style='font-size:16pt'><i>%1</i></p>").arg(filled(task.why));
  for (const auto* h : task.hazards)
    s += QStringLiteral("<p style='font-size:16pt; color:%1'><b>%2</b></p>")
             .arg(Theme::now().fails.name(), html(text_of(h->words)));
  if (!task.stop.empty()) s += tr("<p style='font-size:16pt'><b>Stop at:</b> %1</p>").arg(filled(task.stop));
  for (const tasks::Read& r : typed_)
    s += QStringLiteral("<p style='font-size:16pt'>%1: <b>%2</b></p>")
             .arg(html(in_tongue(r.name)), html(text_of(tasks::said(r), units)));
  if (asks_side(task)) {
    QStringList sides;
    for (size_t i = 0; i < task.choice->sides.size(); ++i)
      sides << QStringLiteral("%1 %2").arg(i + 1).arg(in_tongue(task.choice->sides[i]));
    entry_->setPlaceholderText(
        QStringLiteral("%1: %2").arg(in_tongue(task.choice->question), sides.join(", ")));
  } else if (reading_ < task.readings.size()) {
    const auto& r = task.readings[reading_];
    const Text should = tasks::should_read(
        r, tasks::foretold(journal_.look(), journal_.history(), task, b->piece, reading_, typed_));
    entry_->setPlaceholderText(should.empty()
                                   ? in_tongue(r.name)
                                   : tr("%1, should be %2").arg(in_tongue(r.name), text_of(should, units)));
  } else {
    entry_->setPlaceholderText(tr("Enter: done; or type what you saw"));
  }
  text_->setText(s);
}

void BenchView::take() {
  const auto* b = box();
  if (!b) return;
  const auto& task = *b->task;
  const QString typed = entry_->text().trimmed();
  said_->clear();
  if (asks_side(task)) {
    const int side = typed.toInt(), sides = static_cast<int>(task.choice->sides.size());
    if (side < 1 || side > sides) {
      said_->setText(tr("A number from 1 to %1: which of them?").arg(sides));
      return;
    }
    choice_ = task.choice->sides[static_cast<size_t>(side - 1)];
    return show_now();
  }
  if (reading_ < task.readings.size()) {
    if (!typed.isEmpty()) {
      auto understood = tasks::understood(task.readings[reading_],
                                          reading_typed(task.readings[reading_], typed), document_.units());
      if (const auto* why = std::get_if<std::string>(&understood)) {
        said_->setText(html(text_of(*why)));
        return;
      }
      typed_.push_back(std::get<tasks::Read>(std::move(understood)));
    }
    ++reading_;
    return show_now();
  }
  tasks::Entry e = journal_.begun(tasks::Mark::done);
  e.note = typed.toStdString();
  e.readings = typed_;
  e.choice = choice_;
  if (const Text lacks = tasks::lacks(*b, e); !lacks.empty()) {
    show_step();
    said_->setText(html(sentence_of(lacks, document_.units())));
    return;
  }
  if (const auto why = journal_.tick(task, b->piece, e)) {
    said_->setText(html(*why));
    return;
  }
  begin();
}

}  // namespace kranich::app
