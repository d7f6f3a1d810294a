// SPDX-License-Identifier: GPL-3.0-or-later
//! Who has a project open: a mark for as long as a window has it, so that a second one says so before two
//! save over each other. It goes with the process, however that ends.
#pragma once

#include <QLockFile>
#include <QString>
#include <memory>
#include <optional>

namespace kranich::app {

class OpenMark {
 public:
  //! The number of another living process that has the file open; nothing where none has, or where it cannot
  //! be told (a folder that cannot be written).
  static std::optional<qint64> open_elsewhere(const QString& path);
  //! Marks a file as open here, in place of the one before; an empty path: none.
  void take(const QString& path);

 private:
  static QString mark_of(const QString& path);
  std::unique_ptr<QLockFile> mark_;
  QString path_;
};

}  // namespace kranich::app
