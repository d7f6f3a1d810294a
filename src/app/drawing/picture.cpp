// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/picture.h"

#include <QDateTime>
#include <QFileInfo>
#include <QImageReader>
#include <cmath>

#include "app/widgets/findings.h"

namespace kranich::app {
namespace {

//! Read once; anew when the file is another. Large photographs are read no larger than they are shown.
QImage read(const QString& path) {
  static QString known;
  static QDateTime when;
  static QImage image;
  const QFileInfo file(path);
  if (path != known || file.lastModified() != when) {
    QImageReader reader(path);
    reader.setAutoTransform(true);
    constexpr int widest = 2400;
    const QSize size = reader.size();
    if (size.width() > widest) reader.setScaledSize(size.scaled(widest, widest, Qt::KeepAspectRatio));
    image = reader.read();
    known = path;
    when = file.lastModified();
  }
  return image;
}

}  // namespace

QString picture_path(const Document& document) {
  const QString name = text_of(document.design().picture.file);
  if (name.isEmpty() || QFileInfo(name).isAbsolute() || document.path().isEmpty()) return name;
  return QFileInfo(document.path()).absolutePath() + "/" + name;
}

void draw_picture(Sheet& s, const Document& document, const Pose& pose) {
  const Picture& p = document.design().picture;
  if (p.file.empty() || !p.shown || !p.left_x.known() || !p.bottom_z.known() || !p.width.known()) return;
  const QImage image = read(picture_path(document));
  if (image.isNull()) {
    s.note(s.frame().device().topLeft() + s.unit() * QPointF(16, 40), QObject::tr("Picture"),
           QObject::tr("“%1” cannot be read").arg(text_of(p.file)), Ink::fails, pose.main_contact());
    return;
  }
  // It was taken of an aircraft that stands: its lower left corner goes where the main wheels stand, so far
  // from their contact as from the main axle's station in aircraft axes.
  const QPointF contact = pose.main_contact();
  const double left = contact.x() + p.left_x - document.design().gear.main().axle.x;
  const double height = p.width * image.height() / image.width();
  const QPointF a = s.frame().to_device({left, p.bottom_z + height});
  const QPointF b = s.frame().to_device({left + p.width, p.bottom_z.si});
  QPainter& painter = s.painter();
  painter.save();
  painter.setOpacity(0.45);
  painter.setRenderHint(QPainter::SmoothPixmapTransform);
  painter.drawImage(QRectF(a, b), image);
  painter.restore();
}

}  // namespace kranich::app
