// SPDX-License-Identifier: GPL-3.0-or-later
#include <QHBoxLayout>
#include <QPushButton>
#include <algorithm>
#include <cmath>
#include <utility>

#include "app/document/when_seen.h"
#include "app/theme.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/findings.h"
#include "app/widgets/own_limit.h"
#include "core/io/stock.h"

namespace kranich::app {
FindingList::FindingList(Document& document, Station station, QWidget* parent)
    : QWidget(parent),
      document_(document),
      station_(station),
      rows_(new QVBoxLayout),
      noted_(new QLabel(this)),
      why_(new QFrame(this)),
      why_text_(new QLabel(why_)),
      cure_rows_(new QVBoxLayout) {
  rows_->setSpacing(2);
  noted_->setWordWrap(true);
  noted_->setFont(text_font(8));
  why_->setObjectName("why");
  why_->setFrameShape(QFrame::NoFrame);
  why_text_->setWordWrap(true);
  why_text_->setTextFormat(Qt::RichText);
  why_text_->setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::LinksAccessibleByMouse |
                                     Qt::LinksAccessibleByKeyboard);
  why_text_->setObjectName("why-text");
  connect(why_text_, &QLabel::linkActivated, this, [this](const QString& link) {
    if (link.startsWith("entry:")) emit document_.entry_wanted(link.mid(6));
  });
  auto* card = new QVBoxLayout(why_);
  card->setContentsMargins(10, 8, 10, 8);
  card->setSpacing(4);
  card->addWidget(why_text_);
  own_limit_ = new OwnLimitRow(document_, why_);
  card->addWidget(own_limit_);
  cure_rows_->setSpacing(3);
  card->addLayout(cure_rows_);
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(0, 0, 0, 0);
  all->setSpacing(6);
  all->addLayout(rows_);
  all->addWidget(why_);
  all->addWidget(noted_);
  cure_timer_.setSingleShot(true);
  cure_timer_.setInterval(40);
  connect(&cure_timer_, &QTimer::timeout, this, &FindingList::refresh_cures);
  refresh_when_seen(
      this, &document_,
      [this] {
        refresh();
        if (!cure_timer_.isActive()) cure_timer_.start();  // in a drag too: at most every 40 ms
      },
      &Document::changed);
  refresh_when_seen(
      this, &document_,
      [this] {
        if (!document_.tolerance_running()) refresh();
      },
      &Document::tolerances_changed);
  connect(noted_, &QLabel::linkActivated, this, [this](const QString& key) { choose(key.toStdString()); });
  refresh();
}

const Finding* FindingList::chosen_finding() const {
  for (const Finding* f : worst_of_each(document_.assessment()))
    if (f->check() == chosen_) return f;
  return nullptr;
}

void FindingList::choose(const std::string& key) {
  chosen_ = key;
  chosen_by_hand_ = true;
  refresh();
  cure_timer_.start();
  emit chosen_changed();
}

void FindingList::refresh() {
  std::vector<const Finding*> mine, noted;
  for (const Finding* f : worst_of_each(document_.assessment()))
    if (f->info().station == station_) (f->verdict == Verdict::noted ? noted : mine).push_back(f);
  const auto is_chosen = [&](const Finding* f) { return f->check() == chosen_; };
  if (!chosen_by_hand_ || (std::none_of(mine.begin(), mine.end(), is_chosen) &&
                           std::none_of(noted.begin(), noted.end(), is_chosen)))
    chosen_ = mine.empty() ? std::string() : mine.front()->check();
  while (buttons_.size() < mine.size()) {
    auto* b = new FindingButton(FindingButton::Shape::row, this);
    connect(b, &QAbstractButton::clicked, this, [this, b] { choose(b->key()); });
    rows_->addWidget(b);
    buttons_.push_back(b);
  }
  const Assessment* before = document_.assessment_before_drag();
  const bool pinned = !before && document_.pinned();
  if (!before) before = document_.pinned_assessment();
  for (size_t i = 0; i < buttons_.size(); ++i) {
    const Finding* f = i < mine.size() ? mine[i] : nullptr;
    buttons_[i]->show_finding(f, f ? same_check(before, *f) : nullptr, document_, pinned);
    buttons_[i]->setChecked(f && buttons_[i]->key() == chosen_);
  }
  QString also;
  for (const Finding* f : noted)
    also += QStringLiteral("<a href='%1' style='color:%2; text-decoration:none'>%3 <b>%4</b></a> &nbsp; ")
                .arg(html(QString::fromStdString(f->check())), Theme::now().ink.name(),
                     html(title_of(*f, document_.units())), html(value_text(*f, document_.units())));
  noted_->setText(also.isEmpty()
                      ? QString()
                      : tr("<span style='color:%1'>Also:</span> %2").arg(Theme::now().grey.name(), also));
  refresh_why();
}

void FindingList::refresh_why() {
  const Finding* f = chosen_finding();
  why_->setVisible(f != nullptr);
  if (!f) return;
  own_limit_->show_for(*f);
  const Theme& t = Theme::now();
  why_->setStyleSheet(QStringLiteral("#why { background: %1; border: 1px solid %2; border-radius: 3px; }")
                          .arg(t.card.name(), t.line.name()));
  QString s = QStringLiteral("<b>%1</b>: %2<br>")
                  .arg(html(title_of(*f, document_.units())), html(text_of(f->info().meaning)));
  s += QStringLiteral("<span style='color:%1; font-family:B612 Mono'>%2</span><br>")
           .arg(t.accent.name(), html(text_of(f->info().formula)));
  QStringList numbers;
  for (const auto& w : f->working)
    numbers << QStringLiteral("%1 = <b>%2</b>")
                   .arg(html(text_of(w.name, document_.units())), html(document_.say(w.si, w.kind)));
  if (!numbers.isEmpty()) s += numbers.join("; ") + "<br>";
  s += QStringLiteral("<b>%1</b>").arg(html(value_text(*f, document_.units())));
  if (f->limit.set())
    s += tr(", limit %1 – %2")
             .arg(html(limit_text(*f, document_.units())), html_of(f->limit.source, document_.units()));
  s += "<br>";
  if (const Spread* box = document_.spread_of(*f); box && box->high > box->low) {
    const auto say = [&](double v) { return html(document_.say(v, f->info().kind)); };
    s += tr("Over the build tolerances <b>%1 … %2</b>").arg(say(box->low), say(box->high));
    if (const QString doubt = over_box_text(*f, box); !doubt.isEmpty())
      s += QStringLiteral(": <span style='color:%1'><b>%2</b></span>").arg(t.of(box->over_box).name(), doubt);
    QStringList most;
    for (const auto& i : box->influences)
      most << QStringLiteral("%1 ± %2%3")
                  .arg(html(QString::fromStdString(i.title)), say(i.effect),
                       i.undecided ? tr(" (undecided)") : QString());
    if (!most.isEmpty()) s += tr("; most by %1").arg(most.join(", "));
    if (!box->hangs_on.empty())
      s += tr(". The verdict hangs on what is not decided yet: %1")
               .arg(html(QString::fromStdString(box->hangs_on.front())));
    s += tr(" <span style='color:%1'>(each input tried at both ends and added up; where that reaches a limit "
            "the "
            "worst corner itself)</span><br>")
             .arg(t.grey.name());
  }
  QStringList grey;
  if (!f->loading.empty()) grey << tr("loading: %1").arg(html(QString::fromStdString(f->loading)));
  grey << tr("state: %1").arg(text_of(gear_state_word(f->state)));
  if (!f->assumption.empty()) grey << html_of(f->assumption, document_.units());
  if (!f->remark.empty()) grey << html_of(f->remark, document_.units());
  grey << tr("source: %1").arg(html(text_of(f->info().source)));
  s += QStringLiteral("<span style='color:%1'>%2</span>").arg(t.grey.name(), grey.join("; "));
  why_text_->setFont(text_font(8));
  why_text_->setText(s);
}

void FindingList::refresh_cures() {
  const bool drag = document_.before_drag() != nullptr;
  if (drag && cure_work_.running()) {  // called off at every movement they would never be shown
    cures_outdated_ = true;
    return;
  }
  const Finding* f = chosen_finding();
  const bool curable = f && (f->verdict == Verdict::fails || f->verdict == Verdict::tight);
  if (!drag || !curable) {  // in a drag the ones before stay until there are others: no flicker
    cure_work_.cancel();
    clear_layout(cure_rows_);
    cures_.clear();
  }
  if (!curable || !isVisible()) return;  // where another page is in front: when this one is shown
  cures_outdated_ = false;
  cure_work_.start<std::vector<Cure>>(
      [design = document_.design(), assessment = document_.assessment(), finding = *f,
       drag](const Progress& progress) {
        if (drag) return cures_for(design, assessment, finding, {3, nullptr, progress});
        const Stock stock = stock_of(design);
        return cures_for(design, assessment, finding, {100, &stock, progress});
      },
      [this](std::vector<Cure> cures) {
        cures_ = std::move(cures);
        show_cures();
        if (std::exchange(cures_outdated_, false)) refresh_cures();
      });
}

void FindingList::show_cures() {
  clear_layout(cure_rows_);
  const Theme& t = Theme::now();
  const bool pairs =
      std::all_of(cures_.begin(), cures_.end(), [](const Cure& c) { return c.parts.size() > 1; });
  auto* heading =
      new QLabel(cures_.empty() ? tr("<b>Nothing that Kranich can change cures it, nor any pair.</b>")
                 : pairs        ? tr("<b>Nothing single cures it; two together would</b>")
                                : tr("<b>What would cure it</b>"),
                 why_);
  heading->setWordWrap(true);
  cure_rows_->addWidget(heading);
  int shown = 0;
  for (const auto& cure : cures_) {
    if (++shown > 5) break;
    QString price;
    for (const auto& p : cure.worse)
      price += QStringLiteral("<span style='color:%1'>%2 %3 %4</span>; ")
                   .arg(t.of(p.after).name(), html(text_of(measure(p.measure_id).title)),
                        html(document_.say(p.value_after, measure(p.measure_id).kind)),
                        text_of(verdict_word(p.after)));
    QStringList shrinking;
    for (const auto& p : cure.costs)
      shrinking << QStringLiteral("%1 %2").arg(
          html(text_of(measure(p.measure_id).title)),
          html(QString::fromStdString(format_difference(p.value_after - p.value_before,
                                                        measure(p.measure_id).kind, document_.units()))));
    if (!shrinking.isEmpty())
      price += tr("still in limits, but less to spare: %1; ").arg(shrinking.join(", "));
    for (const auto& p : cure.better)
      price += tr("<span style='color:%1'>also cures %2</span>; ")
                   .arg(t.holds.name(), html(text_of(measure(p.measure_id).title)));
    if (price.isEmpty()) price = tr("nothing else gets worse");
    auto* row = new QWidget(why_);
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(0, 0, 0, 0);
    auto* text = new QLabel(
        QStringLiteral("<span style='color:%1'><b>%2</b></span><br><span style='font-size:7.5pt'>%3</span>")
            .arg(t.accent.name(), html(sentence_of(cure.text, document_.units())), price),
        row);
    text->setWordWrap(true);
    auto* attempt = new QPushButton(tr("try"), row);
    attempt->setFlat(true);
    attempt->setObjectName("try:" + QString::fromStdString(cure.id()));
    attempt->setAccessibleName(tr("Try: %1").arg(sentence_of(cure.text, document_.units())));
    attempt->setToolTip(tr("Makes this change; Ctrl+Z takes it back"));
    connect(attempt, &QPushButton::clicked, this, [this, cure] {
      document_.edit(sentence_of(cure.text, document_.units()), [&](Design& d) { d = cure.applied(d); });
    });
    line->addWidget(text, 1);
    line->addWidget(attempt, 0, Qt::AlignTop);
    cure_rows_->addWidget(row);
  }
  const Finding* chosen = chosen_finding();
  if (!chosen || chosen->verdict != Verdict::fails) return;
  auto* hold = new QPushButton(tr("Make it all hold …"), why_);
  hold->setObjectName("make-it-hold");
  hold->setToolTip(tr("The least change of everything that may move after which nothing fails (Ctrl+H)"));
  connect(hold, &QPushButton::clicked, this, [this] { make_hold_dialog(document_, window())->show(); });
  cure_rows_->addWidget(hold, 0, Qt::AlignRight);
}

}  // namespace kranich::app
