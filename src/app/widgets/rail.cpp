// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/rail.h"

#include <QPainter>
#include <QVBoxLayout>

#include "app/theme.h"
#include "app/widgets/findings.h"

namespace kranich::app {

namespace {

//! Ctrl+1 to Ctrl+0 for the first ten, with Shift for what follows.
QString shortcut_of(Station station) {
  const int n = static_cast<int>(station) + 1;
  return (n > 10 ? QStringLiteral("Ctrl+Shift+%1") : QStringLiteral("Ctrl+%1")).arg(n % 10);
}

}  // namespace

RailButton::RailButton(Station station, QWidget* parent) : QAbstractButton(parent), station_(station) {
  setCheckable(true);
  setAutoExclusive(true);
  setCursor(Qt::PointingHandCursor);
  setText(text_of(station_title(station)));
  setObjectName("rail:" + word_of_file(station_id(station)));
  setShortcut(QKeySequence(shortcut_of(station)));
}

void RailButton::count(int fails, int tight, int unknown) {
  fails_ = fails;
  tight_ = tight;
  unknown_ = unknown;
  const QString said = tr("%1: %2 fail, %3 tight, %4 unknown")
                           .arg(text_of(station_title(station_)))
                           .arg(fails)
                           .arg(tight)
                           .arg(unknown);
  setAccessibleName(said);
  setToolTip(QStringLiteral("%1 (%2)").arg(said, shortcut_of(station_)));
  update();
}

void RailButton::paintEvent(QPaintEvent*) {
  const Theme& t = Theme::now();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  if (isChecked()) {
    p.fillRect(rect(), t.paper);
    p.fillRect(QRect(0, 0, 3, height()), t.ink);
  } else if (underMouse() || hasFocus()) {
    p.fillRect(rect(), t.card);
  }
  if (hasFocus()) {
    p.setPen(QPen(t.accent, 1));
    p.drawRect(rect().adjusted(4, 1, -2, -2));
  }
  p.setFont(text_font(10.5, isChecked()));
  p.setPen(t.ink);
  p.drawText(rect().adjusted(16, 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter, text());
  double x = width() - 14;
  const auto mark = [&](int n, Verdict v) {
    if (n == 0) return;
    if (n > 1) {
      p.setFont(text_font(7.5));
      p.setPen(t.of(v));
      const QString s = QString::number(n);
      x -= p.fontMetrics().horizontalAdvance(s);
      p.drawText(QPointF(x + 4, height() / 2.0 + 4), s);
      x -= 5;
    }
    draw_verdict_mark(p, {x, height() / 2.0}, 11, v);
    x -= 13;
  };
  mark(tight_, Verdict::tight);
  mark(fails_, Verdict::fails);
  if (fails_ + tight_ == 0) mark(unknown_, Verdict::unknown);
}

Rail::Rail(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(0, 10, 0, 10);
  all->setSpacing(2);
  for (int i = 0; i < station_count; ++i) {
    auto* b = new RailButton(static_cast<Station>(i), this);
    connect(b, &QAbstractButton::clicked, this, [this, b] { emit chosen(b->station()); });
    all->addWidget(b);
    buttons_.push_back(b);
  }
  all->addStretch(1);
  setFixedWidth(124);
  connect(&document_, &Document::changed, this, &Rail::refresh);
  refresh();
}

void Rail::show_current(Station station) { buttons_[static_cast<size_t>(station)]->setChecked(true); }

void Rail::show_none() {
  for (auto* b : buttons_) {
    b->setAutoExclusive(false);
    b->setChecked(false);
    b->setAutoExclusive(true);
  }
}

void Rail::refresh() {
  int counts[station_count][3] = {};
  for (const Finding* f : worst_of_each(document_.assessment())) {
    auto& c = counts[static_cast<size_t>(f->info().station)];
    c[0] += f->verdict == Verdict::fails;
    c[1] += f->verdict == Verdict::tight;
    c[2] += f->verdict == Verdict::unknown;
  }
  for (size_t i = 0; i < buttons_.size(); ++i) buttons_[i]->count(counts[i][0], counts[i][1], counts[i][2]);
}

}  // namespace kranich::app
