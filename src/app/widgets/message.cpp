// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/message.h"

#include <QPainter>
#include <QPushButton>

#include "app/theme.h"

namespace kranich::app {
namespace {

QPixmap sign_of(Message::Sign sign, double fine) {
  constexpr double side = 34;
  QPixmap pixmap(QSize(static_cast<int>(side * fine), static_cast<int>(side * fine)));
  pixmap.setDevicePixelRatio(fine);
  pixmap.fill(Qt::transparent);
  QPainter p(&pixmap);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = Theme::now();
  const QPointF middle(side / 2, side / 2);
  if (sign == Message::Sign::warns) {
    draw_verdict_mark(p, middle, side * 0.7, Verdict::fails);
  } else {
    p.setPen(QPen(t.accent, 2));
    p.drawEllipse(middle, side * 0.4, side * 0.4);
    p.setFont(text_font(13, true));
    p.drawText(QRectF(0, 0, side, side), Qt::AlignCenter, QStringLiteral("?"));
  }
  return pixmap;
}

}  // namespace

Message::Message(Sign sign, const QString& title, const QString& text, QWidget* parent)
    : QMessageBox(QMessageBox::NoIcon, title, text, QMessageBox::NoButton, parent) {
  setTextFormat(Qt::PlainText);
  setIconPixmap(sign_of(sign, devicePixelRatioF()));
}

QPushButton* Message::answer(const QString& words, ButtonRole role, const char* name) {
  const bool first = buttons().isEmpty();
  QPushButton* button = addButton(words, role);
  if (name) button->setObjectName(QString::fromLatin1(name));
  if (first) setDefaultButton(button);
  return button;
}

QPushButton* Message::stays(const QString& words) {
  QPushButton* button = answer(words, RejectRole, "stays");
  setEscapeButton(button);
  return button;
}

Message* Message::tell(const QString& title, const QString& text, const char* name, QWidget* parent,
                       Qt::TextFormat format) {
  auto* box = new Message(Sign::warns, title, text, parent);
  box->setAttribute(Qt::WA_DeleteOnClose);
  box->setObjectName(QString::fromLatin1(name));
  box->setTextFormat(format);
  box->stays(tr("Close"));
  box->open();
  return box;
}

bool Message::confirmed(const QString& title, const QString& question, const QString& yes, QWidget* parent) {
  Message box(Sign::asks, title, question, parent);
  auto* does = box.answer(yes, AcceptRole, "does-it");
  box.stays(tr("Leave it"));
  box.exec();
  return box.clickedButton() == does;
}

}  // namespace kranich::app
