// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/print/pdf.h"

#include <QBuffer>

#include "core/io/project_file.h"

namespace kranich::app {

std::optional<QString> write_pdf(const QString& path, const std::function<bool(QPdfWriter&)>& draw) {
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  {
    QPdfWriter writer(&buffer);
    writer.setCreator(QStringLiteral("Kranich"));
    if (!draw(writer)) return std::nullopt;
  }
  const QByteArray& bytes = buffer.data();
  if (const auto why = write_file_atomically(
          path.toStdString(), std::string_view(bytes.constData(), static_cast<size_t>(bytes.size()))))
    return QObject::tr("%1: %2").arg(path, QString::fromStdString(*why));
  return std::nullopt;
}

}  // namespace kranich::app
