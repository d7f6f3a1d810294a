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
  qint64 process = 0;
  QString host, program;
  // Where there is no mark none is made: for that moment it would keep another from marking its own.
  if (!probe.getLockInfo(&process, &host, &program)) return std::nullopt;
  if (probe.tryLock(0)) return std::nullopt;
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
  if (!mark_->tryLock(200)) mark_.reset();  // one that only looks lets go at once
}

}  // namespace kranich::app
