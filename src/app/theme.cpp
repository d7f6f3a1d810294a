// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/theme.h"

#include <QApplication>
#include <QFontDatabase>
#include <QPainter>
#include <QPainterPath>
#include <QStyleFactory>

namespace kranich::app {
namespace {
bool night_chosen = false;
}

QColor Theme::of(Verdict v) const {
  switch (v) {
    case Verdict::fails:
      return fails;
    case Verdict::tight:
      return tight;
    case Verdict::holds:
      return holds;
    case Verdict::unknown:
      return grey;
    case Verdict::noted:
      return grey;
  }
  return grey;
}

Theme Theme::light() {
  Theme t;
  t.paper = "#fbfaf5";
  t.desk = "#eeeae0";
  t.card = "#ffffff";
  t.line = "#d0c9b8";
  t.faint_line = "#e2dccd";
  t.ink = "#22303a";
  t.grey = "#5d6a72";
  t.faint = "#b9bcb8";
  t.body = "#f0ece0";
  t.glass = "#dde5e8";
  t.tyre = "#3d4850";
  t.rim = "#cfc9ba";
  t.accent = "#1f6670";
  t.fails = "#a93226";
  t.tight = "#8b5f0a";
  t.holds = "#3f6e3a";
  t.pinned = "#745d97";
  t.band = "#b9cfb0";
  t.band_out = "#ded8ca";
  t.fails_wash = "#f3e1da";
  return t;
}

Theme Theme::night() {
  Theme t;
  t.dark = true;
  t.paper = "#1b2226";
  t.desk = "#232b30";
  t.card = "#2a3338";
  t.line = "#465158";
  t.faint_line = "#364046";
  t.ink = "#e6e2d6";
  t.grey = "#a3adb1";
  t.faint = "#58636a";
  t.body = "#2b343a";
  t.glass = "#35434b";
  t.tyre = "#89949a";
  t.rim = "#4a555c";
  t.accent = "#63b6c1";
  t.fails = "#ef7e6e";
  t.tight = "#d9aa4a";
  t.holds = "#8cc083";
  t.pinned = "#b59bdc";
  t.band = "#44603f";
  t.band_out = "#3a4449";
  t.fails_wash = "#46302c";
  return t;
}

const Theme& Theme::now() {
  static const Theme day = light();
  static const Theme dark = night();
  return night_chosen ? dark : day;
}

void Theme::choose(bool dark) {
  night_chosen = dark;
  dress_application();
}

void load_fonts() {
  // The fixed-width cuts also answer to the family "B612": what is loaded last wins, so they come first.
  for (const char* name : {"B612Mono-Bold", "B612Mono-Regular", "B612-Italic", "B612-Bold", "B612-Regular"})
    QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/%1.otf").arg(QLatin1String(name)));
}

QFont text_font(double points, bool bold) {
  QFont f(QStringLiteral("B612"));
  f.setPointSizeF(points);
  f.setBold(bold);
  return f;
}

QFont figure_font(double points, bool bold) {
  return text_font(points, bold);  // B612's own digits are all of one width
}

QFont fixed_font(double points, bool bold) {
  QFont f(QStringLiteral("B612 Mono"));
  f.setPointSizeF(points);
  f.setBold(bold);
  return f;
}

void dress_application() {
  const Theme& t = Theme::now();
  QApplication::setStyle(QStyleFactory::create(QStringLiteral("Fusion")));
  QApplication::setFont(text_font(9));
  QPalette p;
  p.setColor(QPalette::Window, t.desk);
  p.setColor(QPalette::WindowText, t.ink);
  p.setColor(QPalette::Base, t.card);
  p.setColor(QPalette::AlternateBase, t.paper);
  p.setColor(QPalette::Text, t.ink);
  p.setColor(QPalette::PlaceholderText, t.grey);
  p.setColor(QPalette::Button, t.desk);
  p.setColor(QPalette::ButtonText, t.ink);
  p.setColor(QPalette::Highlight, t.accent);
  p.setColor(QPalette::HighlightedText, t.paper);
  p.setColor(QPalette::ToolTipBase, t.card);
  p.setColor(QPalette::ToolTipText, t.ink);
  p.setColor(QPalette::Link, t.accent);
  for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
    p.setColor(QPalette::Disabled, role, t.faint);
  QApplication::setPalette(p);
  const auto n = [](const QColor& c) { return c.name(); };
  qApp->setStyleSheet(QStringLiteral(R"(
    QToolTip { background: %1; color: %2; border: 1px solid %3; padding: 4px; }
    QLineEdit, QComboBox, QPlainTextEdit { background: %1; color: %2; border: 1px solid %3; border-radius: 3px; padding: 2px 6px; }
    QLineEdit:focus, QComboBox:focus, QPlainTextEdit:focus { border: 1px solid %4; }
    QLineEdit:disabled { color: %5; background: %6; }
    QLineEdit[refused="true"] { border: 2px solid %7; }
    QComboBox::drop-down { border: none; width: 18px; } QComboBox::down-arrow { image: url(:/icons/down.svg); }
    QPushButton::menu-indicator { image: url(:/icons/down.svg); subcontrol-position: right center; subcontrol-origin: padding; left: -4px; }
    QPushButton#project-menu { padding-right: 20px; }
    QComboBox QAbstractItemView { background: %1; color: %2; selection-background-color: %4; selection-color: %8; }
    QPushButton { background: %1; color: %2; border: 1px solid %3; border-radius: 3px; padding: 4px 10px; }
    QPushButton:hover, QToolButton:hover { border-color: %4; }
    QPushButton:focus, QToolButton:focus { border: 1px solid %4; }
    QPushButton:checked { background: %2; color: %6; border-color: %2; }
    QPushButton:disabled { color: %5; }
    QPushButton#fold { text-align: left; border: none; background: transparent; color: %4; padding: 6px 0 3px 0; font-weight: bold; }
    QPushButton[flat="true"] { background: transparent; border: none; color: %4; padding: 2px 4px; }
    QTableWidget { background: %1; gridline-color: %9; border: 1px solid %3; }
    QHeaderView::section { background: %6; color: %5; border: none; border-bottom: 1px solid %3; padding: 4px; }
    QScrollArea, QScrollArea > QWidget > QWidget { background: transparent; border: none; }
    QScrollBar:vertical { background: transparent; width: 10px; } QScrollBar::handle:vertical { background: %3; border-radius: 4px; min-height: 24px; }
    QScrollBar::add-line, QScrollBar::sub-line { height: 0; width: 0; }
    QCheckBox::indicator, QTableView::indicator { width: 12px; height: 12px; border: 1px solid %5; border-radius: 2px; background: %1; }
    QCheckBox::indicator:checked, QTableView::indicator:checked { background: %4; border-color: %4; image: url(:/icons/tick.svg); }
    QTabBar::tab { background: %6; color: %5; padding: 5px 12px; border: none; } QTabBar::tab:selected { background: %1; color: %2; border-top: 2px solid %2; } QTabWidget::pane { background: %6; border: 1px solid %3; }
    QMenu { background: %1; color: %2; border: 1px solid %3; } QMenu::item { padding: 5px 22px; } QMenu::item:selected { background: %4; color: %8; }
    QMenu::item:disabled { color: %5; }
  )")
                          .arg(n(t.card), n(t.ink), n(t.line), n(t.accent), n(t.grey), n(t.desk), n(t.fails),
                               n(t.paper), n(t.faint_line)));
}

void draw_verdict_mark(QPainter& p, const QPointF& c, double size, Verdict v) {
  if (v == Verdict::noted) return;
  const double r = size / 2;
  p.save();
  p.setRenderHint(QPainter::Antialiasing);
  const QColor colour = Theme::now().of(v);
  p.setPen(Qt::NoPen);
  p.setBrush(colour);
  switch (v) {
    case Verdict::fails:
      p.drawPolygon(QPolygonF({c + QPointF(0, -r), c + QPointF(r, r * 0.8), c + QPointF(-r, r * 0.8)}));
      break;
    case Verdict::tight:
      p.drawPolygon(
          QPolygonF({c + QPointF(0, -r), c + QPointF(r, 0), c + QPointF(0, r), c + QPointF(-r, 0)}));
      break;
    case Verdict::holds:
      p.drawEllipse(c, r * 0.6, r * 0.6);
      break;
    default:
      p.setPen(QPen(colour, 1.5));
      p.setBrush(Qt::NoBrush);
      p.drawEllipse(c, r * 0.65, r * 0.65);
  }
  p.restore();
}

}  // namespace kranich::app
