// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/findings.h"

#include <QHBoxLayout>
#include <QPainter>
#include <QPushButton>
#include <QStyleOption>
#include <algorithm>
#include <cmath>

#include "app/theme.h"

namespace kranich::app {

void clear_layout(QLayout* layout) {
  while (QLayoutItem* item = layout->takeAt(0)) {
    if (QWidget* w = item->widget()) {
      w->hide();
      w->setParent(nullptr);
      w->deleteLater();
    }
    delete item;
  }
}

namespace {
QString never_markup(QString text) {
  // With a word joiner behind it, a < begins no tag, in a label or a tooltip, and looks the same.
  if (text.contains('<')) text.replace("<", QStringLiteral("<\u2060"));
  return text;
}
}  // namespace

QString text_of(const std::string& s) { return never_markup(QString::fromStdString(s)); }
QString text_of(std::string_view s) { return never_markup(in_tongue(s)); }
QString text_of(const Text& text, UnitSystem units) { return text_of(in_words(text, tongue(units))); }

QString sentence_of(const Text& text, UnitSystem units) { return capitalised(text_of(text, units)); }

QString html_of(const Text& text, UnitSystem units) {
  QString all;
  for (const auto& piece : in_pieces(text, tongue(units))) {
    const QString words = QString::fromStdString(piece.words).toHtmlEscaped();
    all += piece.path.empty() ? words
                              : QStringLiteral("<a href='entry:%1'>%2</a>")
                                    .arg(QString::fromStdString(piece.path).toHtmlEscaped(), words);
  }
  return all;
}

QString value_text(const Finding& f, UnitSystem units) {
  if (f.verdict == Verdict::fails && !std::isfinite(f.value)) return QObject::tr("never");
  return with_decimal_mark(QString::fromStdString(format_quantity(f.value, f.info().kind, units)));
}

QString limit_text(const Finding& f, UnitSystem units) {
  const Kind kind = f.info().kind;
  const auto say = [&](double v) {
    return with_decimal_mark(QString::fromStdString(format_quantity(v, kind, units)));
  };
  if (f.limit.lower && f.limit.upper) return say(*f.limit.lower) + " … " + say(*f.limit.upper);
  if (f.limit.lower) return QObject::tr("%1 min").arg(say(*f.limit.lower));
  if (f.limit.upper) return QObject::tr("%1 max").arg(say(*f.limit.upper));
  return {};
}

QString title_of(const Finding& f, UnitSystem units) {
  // What tells two findings of one measure apart comes first: there it is never cut off.
  QString title = text_of(f.info().title);
  if (f.subject.empty()) return title;
  // Where nouns are written large they stay so.
  if (spoken().id == QLatin1String("en")) title[0] = title[0].toLower();
  QString subject = text_of(f.subject.words, units);
  subject[0] = subject[0].toUpper();
  return subject + ": " + title;
}

const Finding* same_check(const Assessment* in, const Finding& f) {
  if (!in) return nullptr;
  const Finding* worst = nullptr;
  for (const auto& o : in->findings)
    if (o.measure_id == f.measure_id && o.subject == f.subject && (!worst || worse(o, *worst))) worst = &o;
  return worst;
}

QString over_box_text(const Finding& f, const Spread* spread) {
  if (!spread) return {};
  if (severity(spread->over_box) <= severity(f.verdict)) return {};
  return spread->over_box == Verdict::fails ? QObject::tr("may fail") : QObject::tr("may be tight");
}

void draw_band(QPainter& p, const QRectF& area, const Finding& f, const Finding* pinned,
               const Spread* spread) {
  if (!f.limit.set() || !std::isfinite(f.value)) return;
  const Theme& t = Theme::now();
  const double zero = f.info().zero_scale;
  double low = 0;
  double high = 0;
  if (f.limit.lower && f.limit.upper) {
    const double w = *f.limit.upper - *f.limit.lower;
    low = *f.limit.lower - 0.5 * w;
    high = *f.limit.upper + 0.5 * w;
  } else {
    const double at = f.limit.lower ? *f.limit.lower : *f.limit.upper;
    const double size =
        std::max({0.5 * std::abs(at), zero,
                  std::min(std::abs(f.value - at), 3 * std::max(std::abs(at), zero)) * 0.8, 1e-9});
    low = f.limit.lower ? at - 0.7 * size : at - 1.5 * size;
    high = f.limit.lower ? at + 1.5 * size : at + 0.7 * size;
  }
  const auto x = [&](double v) {
    return area.left() + std::clamp((v - low) / (high - low), 0.0, 1.0) * area.width();
  };
  p.fillRect(area, t.band_out);
  const double from = f.limit.lower ? x(*f.limit.lower) : area.left();
  const double to = f.limit.upper ? x(*f.limit.upper) : area.right();
  p.fillRect(QRectF(QPointF(from, area.top()), QPointF(to, area.bottom())), t.band);
  if (f.limit.hold_lower || f.limit.hold_upper) {  // inside, but not yet comfortable: hatched
    QColor wash = t.tight;
    wash.setAlpha(70);
    if (f.limit.hold_lower)
      p.fillRect(QRectF(QPointF(from, area.top()), QPointF(x(*f.limit.hold_lower), area.bottom())), wash);
    if (f.limit.hold_upper)
      p.fillRect(QRectF(QPointF(x(*f.limit.hold_upper), area.top()), QPointF(to, area.bottom())), wash);
  }
  const auto needle = [&](double v, const QColor& c, double over) {
    p.fillRect(QRectF(x(v) - 1.5, area.top() - over, 3, area.height() + 2 * over), c);
  };
  if (spread && spread->high > spread->low) {
    QColor wash = t.ink;
    wash.setAlpha(110);
    p.fillRect(QRectF(QPointF(x(spread->low), area.center().y() - 1),
                      QPointF(x(spread->high), area.center().y() + 1)),
               wash);
    for (const double v : {spread->low, spread->high})
      p.fillRect(QRectF(x(v) - 0.5, area.top(), 1, area.height()), wash);
  }
  if (pinned && std::isfinite(pinned->value)) needle(pinned->value, t.pinned, 1);
  needle(f.value, t.of(f.verdict), 3);
}

FindingButton::FindingButton(Shape shape, QWidget* parent) : QAbstractButton(parent), shape_(shape) {
  setFocusPolicy(Qt::TabFocus);
  setCursor(Qt::PointingHandCursor);
  setCheckable(shape == Shape::row);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

QSize FindingButton::sizeHint() const {
  return shape_ == Shape::row ? QSize(260, two_lines_ ? 51 : 37) : QSize(168, 82);
}

void FindingButton::show_finding(const Finding* f, const Finding* before, const Document& document,
                                 bool pinned) {
  const UnitSystem units = document.units();
  const Spread* spread = f ? document.spread_of(*f) : nullptr;
  spread_ = spread ? std::optional(*spread) : std::nullopt;
  finding_ = f ? std::optional(*f) : std::nullopt;
  before_ = before ? std::optional(*before) : std::nullopt;
  pinned_ = pinned;
  units_ = units;
  key_ = f ? f->check() : std::string();
  setObjectName("finding:" + QString::fromStdString(key_));
  setVisible(f != nullptr);
  if (f) {
    const QString said = tr("%1: %2, %3, limit %4")
                             .arg(title_of(*f, units), value_text(*f, units),
                                  text_of(verdict_word(f->verdict)), limit_text(*f, units));
    setAccessibleName(said);
    setToolTip(
        tr("%1\n%2\nLimit: %3 (%4)")
            .arg(said, text_of(f->info().meaning), limit_text(*f, units), text_of(f->limit.source, units)));
  }
  update();
}

namespace {

//! A title over at most two lines; the first leaves room for what stands at its right. What still does not
//! fit is set in smaller letters before any of it is cut. Whether it took two.
bool draw_title(QPainter* p, const QRectF& room, double beside, const QString& title) {
  for (const double points : {8.5, 7.5, 6.8}) {
    const QFont font = text_font(points);
    const QFontMetricsF m(font);
    QString first, second;
    for (const QString& word : title.split(' ')) {
      const QString longer = first.isEmpty() ? word : first + ' ' + word;
      if (second.isEmpty() && m.horizontalAdvance(longer) <= room.width() - beside)
        first = longer;
      else
        second += (second.isEmpty() ? QString() : QStringLiteral(" ")) + word;
    }
    if (m.horizontalAdvance(second) > room.width() && points > 7) continue;
    if (p) {
      p->setFont(font);
      p->drawText(QRectF(room.left(), room.top(), room.width() - beside, 18),
                  Qt::AlignLeft | Qt::AlignVCenter, first);
      p->drawText(QRectF(room.left(), room.top() + 15, room.width(), 16), Qt::AlignLeft | Qt::AlignVCenter,
                  m.elidedText(second, Qt::ElideRight, room.width()));
    }
    return !second.isEmpty();
  }
  return false;
}

constexpr double second_line = 14;  //!< px that it takes in a row

}  // namespace

void FindingButton::paintEvent(QPaintEvent*) {
  if (!finding_) return;
  const Finding& f = *finding_;
  const Theme& t = Theme::now();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const QColor verdict = t.of(f.verdict);
  const QString word = text_of(verdict_word(f.verdict));
  QString change;
  if (before_ && std::isfinite(before_->value) && std::isfinite(f.value)) {
    change = QString::fromStdString(format_difference(f.value - before_->value, f.info().kind, units_));
    if (std::abs(f.value - before_->value) < 1e-12) change.clear();
  }
  const bool hot = underMouse() || hasFocus();
  QRectF r = QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5);
  if (shape_ == Shape::card) {
    p.setPen(QPen(f.verdict == Verdict::fails ? t.fails
                  : hot                       ? t.accent
                                              : t.line,
                  f.verdict == Verdict::fails ? 1.6 : 1));
    p.setBrush(t.card);
    p.drawRoundedRect(r, 3, 3);
    r.adjust(9, 5, -9, -5);
    p.setFont(text_font(7.5));
    p.setPen(t.grey);
    p.drawText(r, Qt::AlignLeft | Qt::AlignTop, text_of(station_title(f.info().station)));
    p.setFont(text_font(8, true));
    p.setPen(verdict);
    p.drawText(r, Qt::AlignRight | Qt::AlignTop, word);
    draw_verdict_mark(p, {r.right() - p.fontMetrics().horizontalAdvance(word) - 9, r.top() + 6}, 9,
                      f.verdict);
    p.setFont(figure_font(9.5, true));
    p.setPen(t.ink);
    const QString value = value_text(f, units_);
    const double value_width = p.fontMetrics().horizontalAdvance(value);
    p.drawText(QRectF(r.left(), r.top() + 15, r.width(), 18), Qt::AlignRight | Qt::AlignVCenter, value);
    p.setFont(text_font(8.5));
    draw_title(&p, QRectF(r.left(), r.top() + 15, r.width(), 32), value_width + 6, title_of(f, units_));
    draw_band(p, QRectF(r.left(), r.top() + 51, r.width(), 6), f, pinned_ && before_ ? &*before_ : nullptr,
              spread_ ? &*spread_ : nullptr);
    p.setFont(text_font(7));
    p.setPen(t.grey);
    const QRectF foot(r.left(), r.bottom() - 11, r.width(), 12);
    p.drawText(foot, Qt::AlignRight | Qt::AlignVCenter,
               p.fontMetrics().elidedText(f.limit.set() ? limit_text(f, units_) : text_of(f.remark, units_),
                                          Qt::ElideRight, static_cast<int>(foot.width())));
    const QString doubt = over_box_text(f, spread_ ? &*spread_ : nullptr);
    if (!change.isEmpty()) {
      p.setPen(pinned_ ? t.pinned : t.accent);
      p.drawText(foot, Qt::AlignLeft | Qt::AlignVCenter, change);
    } else if (!doubt.isEmpty()) {
      draw_verdict_mark(p, {foot.left() + 4, foot.center().y()}, 7, spread_->over_box);
      p.setPen(t.of(spread_->over_box));
      p.drawText(foot.adjusted(11, 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter, doubt);
    }
    return;
  }
  if (isChecked() || hot) {
    p.setPen(isChecked() ? QPen(t.accent, 1) : Qt::NoPen);
    p.setBrush(t.card);
    p.drawRoundedRect(r, 3, 3);
  }
  r.adjust(5, 2, -5, -3);
  const QRectF top(r.left(), r.top(), r.width(), 18);
  p.setFont(text_font(8, true));
  p.setPen(verdict);
  const double word_width = p.fontMetrics().horizontalAdvance("unknown");
  p.drawText(top, Qt::AlignRight | Qt::AlignVCenter, word);
  p.setFont(figure_font(9, true));
  p.setPen(t.ink);
  const QString value = value_text(f, units_);
  const double value_width = p.fontMetrics().horizontalAdvance(value);
  double right = top.right() - word_width - 8;
  p.drawText(QRectF(top.left(), top.top(), right - top.left(), 18), Qt::AlignRight | Qt::AlignVCenter, value);
  right -= value_width + 6;
  if (!change.isEmpty()) {
    p.setFont(text_font(7.5));
    p.setPen(pinned_ ? t.pinned : t.accent);
    const double w = p.fontMetrics().horizontalAdvance(change);
    p.drawText(QRectF(top.left(), top.top(), right - top.left(), 18), Qt::AlignRight | Qt::AlignVCenter,
               change);
    right -= w + 6;
  }
  draw_verdict_mark(p, {top.left() + 5, top.center().y()}, 9, f.verdict);
  p.setFont(text_font(8.5));
  p.setPen(t.ink);
  const bool two = draw_title(&p, QRectF(top.left() + 14, top.top(), top.width() - 14, 32),
                              top.right() - right, title_of(f, units_));
  if (two != two_lines_) {
    // Room for the second line from the next pass on.
    two_lines_ = two;
    QMetaObject::invokeMethod(
        this, [this] { updateGeometry(); }, Qt::QueuedConnection);
  }
  if (two) r.adjust(0, second_line, 0, 0);
  if (f.limit.set() && std::isfinite(f.value)) {
    draw_band(p, QRectF(r.left(), r.top() + 22, r.width(), 6), f, pinned_ && before_ ? &*before_ : nullptr,
              spread_ ? &*spread_ : nullptr);
  } else {
    p.setFont(text_font(7.5));
    p.setPen(t.grey);
    p.drawText(QRectF(r.left() + 14, r.top() + 17, r.width() - 14, 14), Qt::AlignLeft | Qt::AlignVCenter,
               p.fontMetrics().elidedText(f.remark.empty() ? text_of(f.loading) : text_of(f.remark, units_),
                                          Qt::ElideRight, static_cast<int>(r.width() - 14)));
  }
}

MarginStrip::MarginStrip(Document& document, QWidget* parent)
    : QWidget(parent),
      document_(document),
      heading_(new QLabel(this)),
      count_(new QLabel(this)),
      cards_(new QWidget(this)) {
  heading_->setText(tr("<b>Tightest margins</b> &nbsp; whole aircraft, every loading"));
  connect(count_, &QLabel::linkActivated, this, [this](const QString& link) {
    if (link == "next") return emit measure_next();
    link == "cancel" ? document_.cancel_tolerances() : document_.start_tolerances();
  });
  auto* top = new QHBoxLayout;
  top->addWidget(heading_, 1);
  top->addWidget(count_);
  auto* row = new QHBoxLayout(cards_);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(9);
  for (int i = 0; i < 9; ++i) {
    auto* b = new FindingButton(FindingButton::Shape::card, cards_);
    connect(b, &QAbstractButton::clicked, this, [this, b] {
      const auto bar = b->key().find('|');
      if (const Measure* m = find_measure(b->key().substr(0, bar)))
        emit go_to(m->station, QString::fromStdString(b->key()));
    });
    row->addWidget(b);
    buttons_.push_back(b);
  }
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(16, 6, 16, 8);
  all->setSpacing(4);
  all->addLayout(top);
  all->addWidget(cards_);
  connect(&document_, &Document::changed, this, &MarginStrip::refresh);
  connect(&document_, &Document::tolerances_changed, this, &MarginStrip::refresh);
  refresh();
}

void MarginStrip::refresh() {
  const auto list = worst_of_each(document_.assessment());
  const size_t room = static_cast<size_t>(std::max(3, width() / 180));
  const Assessment* before = document_.assessment_before_drag();
  const bool pinned = !before && document_.pinned();
  if (!before) before = document_.pinned_assessment();
  size_t shown = 0;
  int fails = 0, tight = 0, holds = 0, unknown = 0;
  for (const Finding* f : list) {
    fails += f->verdict == Verdict::fails;
    tight += f->verdict == Verdict::tight;
    holds += f->verdict == Verdict::holds;
    unknown += f->verdict == Verdict::unknown;
    if (f->verdict == Verdict::noted || shown >= std::min(room, buttons_.size())) continue;
    buttons_[shown++]->show_finding(f, same_check(before, *f), document_, pinned);
  }
  for (; shown < buttons_.size(); ++shown) buttons_[shown]->show_finding(nullptr, nullptr, document_, false);
  QString box;
  if (document_.tolerance_running()) {
    box = tr(" · tolerances %1 % <a href='cancel'>stop</a>")
              .arg(std::lround(100 * document_.tolerance_progress()));
  } else if (const auto* result = document_.tolerances()) {
    int doubtful = 0;
    for (const Finding* f : list) doubtful += !over_box_text(*f, result->of(*f)).isEmpty();
    if (result->inputs > 0)
      box = tr(" · over %1 tolerances %2 verdicts do not stand").arg(result->inputs).arg(doubtful);
  } else {
    box = tr(" · <a href='start'>work out the tolerances</a>");
  }
  if (document_.design().begun.started) box += tr(" · <a href='next'>what to measure next</a>");
  count_->setText(tr("%1 fail · %2 tight · %3 hold · %4 unknown%5")
                      .arg(fails)
                      .arg(tight)
                      .arg(holds)
                      .arg(unknown)
                      .arg(box));
}

void MarginStrip::resizeEvent(QResizeEvent*) { refresh(); }

}  // namespace kranich::app
