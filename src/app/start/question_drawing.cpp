// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/start/question_drawing.h"

#include <QPainter>
#include <QPainterPath>
#include <cmath>

#include "app/theme.h"

namespace kranich::app {
namespace {

//! A hand with one pen: what is answered in ink, what is open in grey and dashed.
struct Hand {
  QPainter& p;
  QPen drawn, faint, accent;

  explicit Hand(QPainter& painter) : p(painter) {
    const Theme& t = Theme::now();
    drawn = QPen(t.ink, 1.4, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin);
    faint = QPen(t.grey, 1.1, Qt::DashLine, Qt::RoundCap, Qt::RoundJoin);
    accent = QPen(t.accent, 1.6, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin);
  }
  void use(bool answered) {
    p.setPen(answered ? drawn : faint);
    p.setBrush(Qt::NoBrush);
  }
  void wheel(double x, double y, double r, bool filled = true) {
    p.save();
    p.setBrush(filled ? QBrush(p.pen().color()) : QBrush(Qt::NoBrush));
    p.drawEllipse(QPointF(x, y), r, r);
    p.restore();
  }
  //! A fuselage from the side, nose to the left.
  void body(double left, double right, double middle, double half) {
    QPainterPath path(QPointF(left, middle));
    path.cubicTo(left, middle - half, left + 0.25 * (right - left), middle - half,
                 left + 0.45 * (right - left), middle - half);
    path.lineTo(right, middle - 0.35 * half);
    path.lineTo(right, middle + 0.05 * half);
    path.lineTo(left + 0.45 * (right - left), middle + half);
    path.cubicTo(left + 0.2 * (right - left), middle + half, left, middle + half, left, middle);
    p.drawPath(path);
  }
  void arrow(double x0, double x1, double y) {
    p.drawLine(QPointF(x0, y), QPointF(x1, y));
    for (const double end : {x0, x1}) {
      const double back = end == x0 ? 4 : -4;
      p.drawLine(QPointF(end, y), QPointF(end + back, y - 2.5));
      p.drawLine(QPointF(end, y), QPointF(end + back, y + 2.5));
    }
  }
};

void draw_build(Hand& h, const start::Answers& a) {
  h.use(a.build.has_value());
  const bool model = a.build == Build::model;
  h.body(6, 86, 26, model ? 9 : 13);
  if (model) {
    // A battery on its tray.
    h.p.setPen(h.accent);
    h.p.drawRect(QRectF(22, 24, 16, 6));
    h.p.drawLine(QPointF(30, 8), QPointF(30, 18));
    h.p.drawLine(QPointF(26, 8), QPointF(34, 8));
    return;
  }
  h.p.setPen(a.seats ? h.accent : h.faint);
  const int seats = a.seats.value_or(2);
  for (int i = 0; i < seats; ++i) h.wheel(24 + 8.0 * i, 18, 2.6);
}

void draw_craft(Hand& h, const start::Answers& a) {
  h.use(a.kind.has_value());
  const auto craft = a.kind.value_or(Craft::nose_wheel);
  h.p.save();
  if (craft == Craft::tail_wheel) {
    h.p.translate(46, 24);
    h.p.rotate(10);
    h.p.translate(-46, -24);
  }
  h.body(8, 84, 22, 9);
  h.p.restore();
  h.p.setPen(a.kind ? h.accent : h.faint);
  h.wheel(craft == Craft::tail_wheel ? 28 : 46, 39, 4.5);
  if (craft == Craft::tail_wheel)
    h.wheel(78, 41, 2.5);
  else
    h.wheel(18, 39.5, 4);
  if (craft == Craft::helicopter) {
    h.p.drawLine(QPointF(4, 5), QPointF(72, 5));
    h.p.drawLine(QPointF(38, 5), QPointF(38, 13));
  }
}

void draw_gear(Hand& h, const start::Answers& a) {
  h.use(a.retractable.has_value());
  h.p.drawLine(QPointF(12, 12), QPointF(80, 12));
  h.p.drawLine(QPointF(12, 22), QPointF(80, 22));
  if (a.retractable.value_or(false)) {
    h.p.setPen(h.faint);
    h.p.drawLine(QPointF(62, 18), QPointF(62, 36));
    h.wheel(62, 38, 5, false);
    h.p.setPen(h.accent);
    h.p.drawEllipse(QPointF(36, 17), 7, 3.5);
    h.p.drawLine(QPointF(62, 17), QPointF(43, 17));
    h.p.drawArc(QRectF(38, 8, 34, 32), -70 * 16, -60 * 16);
  } else {
    h.p.setPen(a.retractable ? h.accent : h.faint);
    h.p.drawLine(QPointF(46, 22), QPointF(46, 34));
    h.wheel(46, 37, 6);
  }
}

void draw_mass(Hand& h, const start::Answers& a) {
  h.use(a.mass.has_value());
  h.p.drawLine(QPointF(20, 41), QPointF(72, 41));
  const double full = a.mass ? std::clamp(std::log10(*a.mass / 0.3) / std::log10(2000 / 0.3), 0.1, 1.0) : 0.5;
  h.p.setPen(a.mass ? h.accent : h.faint);
  const double w = 10 + 18 * full, top = 41 - 8 - 20 * full;
  h.p.drawPolygon(QPolygonF{{46 - w, 41}, {46 + w, 41}, {46 + 0.7 * w, top}, {46 - 0.7 * w, top}});
  h.p.drawEllipse(QPointF(46, top - 3), 3, 3);
}

void draw_span(Hand& h, const start::Answers& a) {
  h.use(a.span.has_value());
  const auto allowed = start::allowed_span(a);
  const double share = a.span ? std::clamp(*a.span / allowed.usual, 0.6, 1.6) / 1.6 : 1 / 1.6;
  const double half = 42 * share;
  if (a.kind == Craft::helicopter) {
    h.p.drawEllipse(QPointF(46, 20), half, 0.36 * half);
    h.p.drawLine(QPointF(46, 8), QPointF(46, 34));
  } else {
    h.p.drawPolygon(
        QPolygonF{{46 - half, 17}, {46, 13}, {46 + half, 17}, {46 + half, 22}, {46, 25}, {46 - half, 22}});
    h.p.drawLine(QPointF(46, 6), QPointF(46, 34));
  }
  h.p.setPen(a.span ? h.accent : h.faint);
  h.arrow(46 - half, 46 + half, 41);
}

void draw_length(Hand& h, const start::Answers& a) {
  h.use(a.length.has_value());
  const auto allowed = start::allowed_length(a);
  const double share = a.length ? std::clamp(*a.length / allowed.usual, 0.75, 1.5) / 1.5 : 1 / 1.5;
  const double half = 42 * share;
  h.body(46 - half, 46 + half, 20, 8);
  h.p.setPen(a.length ? h.accent : h.faint);
  h.arrow(46 - half, 46 + half, 39);
}

void draw_wing(Hand& h, const start::Answers& a) {
  h.use(a.wing.has_value());
  h.p.drawEllipse(QPointF(46, 22), 9, 13);
  h.p.setPen(a.wing ? h.accent : h.faint);
  const auto place = a.wing.value_or(WingPlace::low);
  const double root = place == WingPlace::low ? 30 : place == WingPlace::mid ? 22 : 11;
  const double tip = root - (place == WingPlace::low ? 7 : place == WingPlace::mid ? 4 : 2);
  for (const double side : {-1.0, 1.0})
    h.p.drawLine(QPointF(46 + side * 7, root), QPointF(46 + side * 42, tip));
}

void draw_engine(Hand& h, const start::Answers& a) {
  h.use(a.engine.has_value());
  h.body(14, 80, 24, 9);
  h.p.setPen(a.engine ? h.accent : h.faint);
  switch (a.engine.value_or(Engine::front)) {
    case Engine::front:
      h.p.drawLine(QPointF(12, 8), QPointF(12, 40));
      break;
    case Engine::pusher:
      h.p.drawLine(QPointF(58, 6), QPointF(58, 34));
      h.p.drawRect(QRectF(42, 11, 14, 6));
      break;
    case Engine::ducted:
      h.p.drawRoundedRect(QRectF(40, 17, 24, 12), 3, 3);
      h.p.drawLine(QPointF(52, 17), QPointF(52, 29));
      h.p.drawLine(QPointF(66, 23), QPointF(78, 23));
      break;
  }
}

void draw_field(Hand& h, const start::Answers& a) {
  h.use(a.field.has_value());
  h.wheel(46, 26, 10, false);
  h.p.setPen(a.field ? h.accent : h.faint);
  const Field field = a.field.value_or(Field::turf);
  h.p.drawLine(QPointF(6, 37), QPointF(86, 37));
  if (field == Field::turf)
    for (double x = 8; x < 86; x += 4) h.p.drawLine(QPointF(x, 37), QPointF(x + 1.5, 32));
  if (field == Field::rough)
    for (const double x : {12.0, 28.0, 62.0, 78.0}) h.p.drawArc(QRectF(x - 6, 33, 12, 8), 0, 180 * 16);
  if (field == Field::sand)
    for (double x = 8; x < 86; x += 6)
      for (double y = 40; y < 46; y += 3) h.p.drawPoint(QPointF(x + (y > 41 ? 3 : 0), y));
  if (field == Field::indoor) h.p.drawPolyline(QPolygonF{{6, 37}, {6, 4}, {86, 4}, {86, 37}});
}

}  // namespace

QuestionDrawing::QuestionDrawing(Question question, QWidget* parent) : QWidget(parent), question_(question) {
  setFixedSize(92, 46);
}

void QuestionDrawing::show_answers(const start::Answers& answers) {
  if (answers == answers_) return;
  answers_ = answers;
  update();
}

void QuestionDrawing::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  Hand hand(p);
  switch (question_) {
    case Question::build:
      return draw_build(hand, answers_);
    case Question::craft:
      return draw_craft(hand, answers_);
    case Question::gear:
      return draw_gear(hand, answers_);
    case Question::mass:
      return draw_mass(hand, answers_);
    case Question::span:
      return draw_span(hand, answers_);
    case Question::length:
      return draw_length(hand, answers_);
    case Question::wing:
      return draw_wing(hand, answers_);
    case Question::engine:
      return draw_engine(hand, answers_);
    case Question::field:
      return draw_field(hand, answers_);
  }
}

}  // namespace kranich::app
