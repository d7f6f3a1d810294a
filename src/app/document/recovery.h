// SPDX-License-Identifier: GPL-3.0-or-later
//! Safety copies of unsaved work: written while it goes on, found again after a crash, a kill or a power cut.
#pragma once

#include <QDateTime>
#include <QString>
#include <filesystem>
#include <optional>
#include <string>
#include <vector>

namespace kranich::app {

//! The copy that this process writes. Its name is locked for as long as the process lives, so that nobody
//! else takes it for work left behind; the lock goes with the process, however that ends.
class RecoveryCopy {
 public:
  RecoveryCopy() = default;
  ~RecoveryCopy();
  RecoveryCopy(const RecoveryCopy&) = delete;
  RecoveryCopy& operator=(const RecoveryCopy&) = delete;

  //! Writes the project's text, with the file it belongs to and that file's state when it was read, and the
  //! Book's entries that no file holds yet. Why it could not be done, or nothing.
  std::optional<QString> write(const std::string& project, const QString& belongs_to,
                               const std::string& file_state, const std::string& book = {});
  //! Removes the copy: the work is saved, or given up.
  void drop();
  //! Lets go of the copy and leaves it for the next start.
  void leave();
  const std::filesystem::path& file() const { return file_; }

 private:
  std::filesystem::path file_;
  int lock_ = -1;
};

//! Work left behind by a process that is gone.
struct LeftBehind {
  std::filesystem::path copy;
  QString belongs_to;      //!< the file it was work on; empty: it was not saved yet
  std::string file_state;  //!< of that file, when it was read
  QDateTime when;
};

std::filesystem::path recovery_directory();
//! Copies whose processes are gone, newest first.
std::vector<LeftBehind> work_left_behind();
//! Removes a copy that is needed no more.
void discard(const LeftBehind& left);
//! Puts a copy away into a folder beside the others, from where it can still be fetched by hand; where it
//! went.
std::filesystem::path set_aside(const LeftBehind& left);

//! A file's contents as a short text: whether somebody else has changed it since. Empty where it cannot be
//! read.
std::string state_of_file(const QString& path);

}  // namespace kranich::app
