// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/document/recovery.h"

#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>

#include <QCoreApplication>
#include <QCryptographicHash>
#include <QFile>
#include <QFileInfo>
#include <QStandardPaths>
#include <algorithm>

#include "core/io/book_file.h"
#include "core/io/project_file.h"

namespace kranich::app {
namespace {

namespace fs = std::filesystem;

fs::path lock_of(const fs::path& copy) { return fs::path(copy).replace_extension(".lock"); }
fs::path note_of(const fs::path& copy) { return fs::path(copy).replace_extension(".from"); }

//! An open lock on a copy's name, or −1 where a living process holds it.
int take_lock(const fs::path& copy) {
  const int fd = ::open(lock_of(copy).c_str(), O_CREAT | O_RDWR | O_CLOEXEC, 0600);
  if (fd >= 0 && ::flock(fd, LOCK_EX | LOCK_NB) != 0) {
    ::close(fd);
    return -1;
  }
  return fd;
}

void remove_all_of(const fs::path& copy) {
  std::error_code error;
  for (const auto& file : {copy, note_of(copy), lock_of(copy), book_beside(copy)}) fs::remove(file, error);
}

}  // namespace

fs::path recovery_directory() {
  const QString base = QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation);
  return fs::path(base.toStdString()) / "recovery";
}

RecoveryCopy::~RecoveryCopy() { drop(); }

std::optional<QString> RecoveryCopy::write(const std::string& project, const QString& belongs_to,
                                           const std::string& file_state, const std::string& book) {
  std::error_code error;
  if (file_.empty()) {
    fs::create_directories(recovery_directory(), error);
    if (error) return QString::fromStdString(error.message());
    static int count = 0;  // several windows of one process
    const fs::path file =
        recovery_directory() / ("copy-" + std::to_string(QCoreApplication::applicationPid()) + "-" +
                                std::to_string(++count) + ".kranich");
    // A file of that name is of a process that is gone and had our number: its work is left where it is.
    if (fs::exists(file, error)) return write(project, belongs_to, file_state, book);
    lock_ = take_lock(file);
    if (lock_ < 0) return QObject::tr("the folder for safety copies cannot be written");
    file_ = file;
  }
  if (const auto why =
          write_file_atomically(note_of(file_), belongs_to.toStdString() + "\n" + file_state + "\n"))
    return QString::fromStdString(*why);
  if (!book.empty())
    if (const auto why = write_file_atomically(book_beside(file_), book)) return QString::fromStdString(*why);
  if (const auto why = write_file_atomically(file_, project)) return QString::fromStdString(*why);
  return std::nullopt;
}

void RecoveryCopy::drop() {
  if (file_.empty()) return;
  remove_all_of(file_);
  if (lock_ >= 0) ::close(lock_);
  lock_ = -1;
  file_.clear();
}

void RecoveryCopy::leave() {
  if (lock_ >= 0) ::close(lock_);
  lock_ = -1;
  file_.clear();
}

std::vector<LeftBehind> work_left_behind() {
  std::vector<LeftBehind> list;
  std::error_code error;
  for (const auto& entry : fs::directory_iterator(recovery_directory(), error)) {
    if (entry.path().extension() != ".kranich") continue;
    const int lock = take_lock(entry.path());
    if (lock < 0) continue;  // its owner lives
    ::close(lock);
    LeftBehind left{
        entry.path(), {}, {}, QFileInfo(QString::fromStdString(entry.path().string())).lastModified()};
    if (const auto note = read_text_file(note_of(entry.path()), 16384)) {
      const auto end = note->find('\n');
      left.belongs_to = QString::fromStdString(note->substr(0, end));
      if (end != std::string::npos)
        left.file_state = note->substr(end + 1, note->find('\n', end + 1) - end - 1);
    }
    list.push_back(std::move(left));
  }
  std::sort(list.begin(), list.end(),
            [](const LeftBehind& a, const LeftBehind& b) { return a.when > b.when; });
  return list;
}

void discard(const LeftBehind& left) { remove_all_of(left.copy); }

fs::path set_aside(const LeftBehind& left) {
  std::error_code error;
  const fs::path folder = recovery_directory() / "put-away";
  fs::create_directories(folder, error);
  const fs::path to =
      folder / (left.when.toString("yyyy-MM-dd-HHmmss-").toStdString() + left.copy.filename().string());
  fs::rename(left.copy, to, error);
  std::error_code no_book;
  if (!error) fs::rename(book_beside(left.copy), book_beside(to), no_book);
  if (!error) remove_all_of(left.copy);
  return error ? left.copy : to;
}

std::string state_of_file(const QString& path) {
  QFile file(path);
  if (!file.open(QIODevice::ReadOnly)) return {};
  QCryptographicHash hash(QCryptographicHash::Sha256);
  if (!hash.addData(&file)) return {};
  return hash.result().toHex().toStdString();
}

}  // namespace kranich::app
