// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/document/open_mark.h"

#include <QCoreApplication>
#include <QCryptographicHash>
#include <QDir>
#include <QFileInfo>
#include <QStandardPaths>

namespace kranich::app {

QString OpenMark::mark_of(const QString& path) {
  const QString where =
      QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + "/kranich/open";
  QDir().mkpath(where);
  // By the file itself, whichever way leads to it.
  const QString real = QFileInfo(path).canonicalFilePath();
  const QByteArray name = (real.isEmpty() ? QFileInfo(path).absoluteFilePath() : real).toUtf8();
  return where + "/" + QString::fromLatin1(QCryptographicHash::hash(name, QCryptographicHash::Sha1).toHex()) +
         ".lock";
}

std::optional<qint64> OpenMark::open_elsewhere(const QString& path) {
  QLockFile probe(mark_of(path));
  probe.setStaleLockTime(0);  // only a process that is gone leaves it behind
  if (probe.tryLock(0)) return std::nullopt;
  qint64 process = 0;
  QString host, program;
  if (!probe.getLockInfo(&process, &host, &program) || process == QCoreApplication::applicationPid())
    return std::nullopt;
  return process;
}

void OpenMark::take(const QString& path) {
  if (path == path_ && mark_) return;
  path_ = path;
  mark_.reset();
  if (path.isEmpty()) return;
  mark_ = std::make_unique<QLockFile>(mark_of(path));
  mark_->setStaleLockTime(0);
  if (!mark_->tryLock(0)) mark_.reset();
}

}  // namespace kranich::app
