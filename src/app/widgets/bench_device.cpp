// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/bench_device.h"

#include <fcntl.h>
#include <sys/prctl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <QCoreApplication>
#include <QDir>
#include <QFile>
#include <QStandardPaths>
#include <cerrno>
#include <csignal>
#include <cstring>

namespace kranich::app {
namespace {

//! Where the program that stands in for devices lies: beside this one, or as the build tree has it.
QString bench_program() {
  const QString here = QCoreApplication::applicationDirPath();
  for (const QString& at : {here + "/kranich-bench", here + "/../bench_device/kranich-bench",
                            here + "/../src/bench_device/kranich-bench"})
    if (QFile::exists(at)) return QDir::cleanPath(at);
  return QStandardPaths::findExecutable(QStringLiteral("kranich-bench"));
}

}  // namespace

BenchDevice::BenchDevice(QString word, QObject* parent) : QObject(parent), word_(std::move(word)) {
  connect(&port_, &QSerialPort::readyRead, this, [this] { take(port_.readAll()); });
  connect(&port_, &QSerialPort::errorOccurred, this, [this](QSerialPort::SerialPortError error) {
    if (error == QSerialPort::NoError || error == QSerialPort::TimeoutError || !port_.isOpen()) return;
    const QString why = port_.errorString();
    close();
    emit lost(tr("the line is cut: %1").arg(why));
  });
  connect(&simulator_, &QProcess::readyReadStandardOutput, this,
          [this] { open(QString::fromUtf8(simulator_.readAllStandardOutput()).trimmed()); });
  connect(&simulator_, &QProcess::errorOccurred, this, [this](QProcess::ProcessError) {
    if (simulator_.state() == QProcess::NotRunning) emit trouble(tr("the simulated device did not start"));
  });
  connect(&simulator_, &QProcess::finished, this, [this] {
    if (!port_.isOpen()) return;
    close();
    emit lost(tr("the simulated device has ended"));
  });
  // The stand-in ends with this program, however that ends.
  simulator_.setChildProcessModifier([] { ::prctl(PR_SET_PDEATHSIG, SIGTERM); });
  silence_.setSingleShot(true);
  silence_.setInterval(3000);
  connect(&silence_, &QTimer::timeout, this, [this] { emit lost(tr("nothing heard for 3 s")); });
}

BenchDevice::~BenchDevice() {
  port_.disconnect();
  port_.close();
  simulator_.disconnect();
  simulator_.terminate();
  simulator_.waitForFinished(1000);
}

void BenchDevice::close() {
  silence_.stop();
  fifo_ready_.reset();
  fifo_.close();
  port_.close();
  buffer_.clear();
}

void BenchDevice::simulate(const QStringList& arguments) {
  const QSignalBlocker quiet(this);  // the old one's end is no trouble
  simulator_.kill();
  simulator_.waitForFinished(500);
  const QString program = bench_program();
  blockSignals(false);
  if (program.isEmpty())
    emit trouble(tr("kranich-bench is not installed"));
  else
    simulator_.start(program, arguments);
}

void BenchDevice::open(const QString& path) {
  close();
  bad_lines_ = 0;
  struct stat what {};
  if (::stat(path.toLocal8Bit().constData(), &what) == 0 && S_ISFIFO(what.st_mode)) {
    const int fd = ::open(path.toLocal8Bit().constData(), O_RDONLY | O_NONBLOCK | O_CLOEXEC);
    if (fd < 0 ||
        !fifo_.open(fd, QIODevice::ReadOnly | QIODevice::Unbuffered, QFileDevice::AutoCloseHandle)) {
      emit trouble(tr("%1 cannot be opened: %2").arg(path, QString::fromLocal8Bit(std::strerror(errno))));
      return;
    }
    fifo_ready_ = std::make_unique<QSocketNotifier>(fd, QSocketNotifier::Read);
    connect(fifo_ready_.get(), &QSocketNotifier::activated, this, [this, fd] {
      QByteArray bytes(4096, '\0');
      const auto n = ::read(fd, bytes.data(), static_cast<size_t>(bytes.size()));
      if (n > 0) return take(bytes.left(static_cast<qsizetype>(n)));
      if (n < 0 && (errno == EAGAIN || errno == EINTR)) return;
      // The writer has closed its end.
      fifo_ready_->setEnabled(false);
      silence_.stop();
      emit lost(tr("the pipe is closed at its other end"));
    });
    emit opened(path);
    return;
  }
  port_.setPortName(path);
  port_.setBaudRate(QSerialPort::Baud9600);
  if (port_.open(QIODevice::ReadWrite))
    emit opened(path);
  else
    emit trouble(tr("%1 cannot be opened: %2").arg(path, port_.errorString()));
}

void BenchDevice::send(const BenchLine& line) {
  if (port_.isOpen()) port_.write(QByteArray::fromStdString(format_bench_line(line) + "\r\n"));
}

void BenchDevice::take(const QByteArray& bytes) {
  buffer_ += bytes;
  if (buffer_.size() > 100000) buffer_.clear();  // noise without a line's end
  for (;;) {
    const auto end = buffer_.indexOf('\n');
    if (end < 0) return;
    const auto parsed = parse_bench_line(buffer_.left(end).toStdString());
    buffer_.remove(0, end + 1);
    const auto* good = std::get_if<BenchLine>(&parsed);
    if (good && good->word == word_.toStdString()) {
      silence_.start();
      emit line(*good);
    } else {
      ++bad_lines_;
    }
  }
}

}  // namespace kranich::app
