// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/picture.h"

#include <poppler-qt6.h>

#include <QDateTime>
#include <QDir>
#include <QFileInfo>
#include <QImageReader>
#include <QSvgRenderer>
#include <cmath>
#include <map>

#include "app/widgets/findings.h"

namespace kranich::app {
namespace {

constexpr int widest = 2400;

QImage read_svg(const QString& path) {
  QSvgRenderer svg(path);
  if (!svg.isValid()) return {};
  QImage image(svg.defaultSize().scaled(widest, widest, Qt::KeepAspectRatio),
               QImage::Format_ARGB32_Premultiplied);
  image.fill(Qt::transparent);
  QPainter painter(&image);
  svg.render(&painter);
  return image;
}

QImage read_pdf(const QString& path) {
  const auto pdf = Poppler::Document::load(path);
  if (!pdf || pdf->isLocked() || pdf->numPages() < 1) return {};
  pdf->setRenderHint(Poppler::Document::Antialiasing);
  pdf->setRenderHint(Poppler::Document::TextAntialiasing);
  const auto page = pdf->page(0);
  if (!page) return {};
  const QSizeF points = page->pageSizeF();  // 1/72 inch
  const double dpi = std::min(300.0, 72.0 * widest / std::max(points.width(), points.height()));
  return page->renderToImage(dpi, dpi);
}

QImage read(const QString& path) {
  const QString kind = QFileInfo(path).suffix().toLower();
  if (kind == "svg" || kind == "svgz") return read_svg(path);
  if (kind == "pdf") return read_pdf(path);
  QImageReader reader(path);
  reader.setAutoTransform(true);
  const QSize size = reader.size();
  if (size.width() > widest) reader.setScaledSize(size.scaled(widest, widest, Qt::KeepAspectRatio));
  return reader.read();
}

}  // namespace

QString picture_files() {
  return QObject::tr("Pictures and drawings (*.png *.jpg *.jpeg *.svg *.svgz *.pdf)");
}

QImage picture_image(const QString& path) {
  struct Known {
    QDateTime when;
    QImage image;
  };
  static std::map<QString, Known> known;
  const QFileInfo file(path);
  auto& k = known[path];
  if (k.image.isNull() || k.when != file.lastModified()) {
    k = {file.lastModified(), file.isFile() ? read(path) : QImage()};
    constexpr size_t most = 4;  // one a view, and the one that stands
    if (known.size() > most)
      for (auto it = known.begin(); it != known.end();)
        it = it->first == path ? std::next(it) : known.erase(it);
  }
  return known[path].image;
}

QString picture_path(const Document& document, const std::string& name) {
  const QString file = QString::fromStdString(name);
  if (file.isEmpty() || QFileInfo(file).isAbsolute() || document.path().isEmpty()) return file;
  return QFileInfo(document.path()).absolutePath() + "/" + file;
}

std::string picture_name(const Document& document, const QString& file) {
  if (document.path().isEmpty()) return file.toStdString();
  const QString beside = QDir(QFileInfo(document.path()).absolutePath()).relativeFilePath(file);
  return (beside.startsWith("..") ? file : beside).toStdString();
}

void draw_image(Sheet& s, const Document& document, const Picture& p, const QPointF& corner) {
  const QImage image = picture_image(picture_path(document, p.file));
  if (image.isNull()) {
    s.note(s.frame().device().topLeft() + s.unit() * QPointF(16, 40), QObject::tr("Picture"),
           QObject::tr("“%1” cannot be read").arg(text_of(p.file)), Ink::fails, corner);
    return;
  }
  const double wide = p.width * s.frame().scale();
  const double high = wide * image.height() / image.width();
  QPainter& painter = s.painter();
  painter.save();
  painter.setOpacity(p.fade.known() ? p.fade.si : 1);
  painter.setRenderHint(QPainter::SmoothPixmapTransform);
  painter.translate(s.frame().to_device(corner));
  painter.rotate(-degrees(p.turned.known() ? p.turned.si : 0));
  if (p.mirrored) {
    painter.translate(wide, 0);
    painter.scale(-1, 1);
  }
  painter.drawImage(QRectF(0, -high, wide, high), image);
  painter.restore();
}

void draw_picture(Sheet& s, const Document& document, const Pose& pose) {
  const Picture& p = document.design().picture;
  if (p.file.empty() || !p.shown || !p.left_x.known() || !p.bottom_z.known() || !p.width.known()) return;
  // It was taken of an aircraft that stands: its lower left corner goes where the main wheels stand, so far
  // from their contact as from the main axle's station in aircraft axes.
  const double left = pose.main_contact().x() + p.left_x - document.design().gear.main().axle.x;
  draw_image(s, document, p, {left, p.bottom_z});
}

}  // namespace kranich::app
