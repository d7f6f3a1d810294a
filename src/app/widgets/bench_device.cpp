// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/bench_device.h"

#include <QCoreApplication>
#include <QDir>
#include <QFile>
#include <QStandardPaths>

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
  connect(&port_, &QSerialPort::readyRead, this, &BenchDevice::read);
  connect(&simulator_, &QProcess::readyReadStandardOutput, this,
          [this] { open(QString::fromUtf8(simulator_.readAllStandardOutput()).trimmed()); });
  connect(&simulator_, &QProcess::errorOccurred, this, [this](QProcess::ProcessError) {
    if (simulator_.state() == QProcess::NotRunning) emit trouble(tr("the simulated device did not start"));
  });
}

BenchDevice::~BenchDevice() {
  port_.close();
  simulator_.disconnect();
  simulator_.terminate();
  simulator_.waitForFinished(1000);
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
  port_.close();
  buffer_.clear();
  bad_lines_ = 0;
  port_.setPortName(path);
  port_.setBaudRate(QSerialPort::Baud9600);
  if (port_.open(QIODevice::ReadWrite))
    emit opened(path);
  else
    emit trouble(tr("%1 cannot be opened: %2").arg(path, port_.errorString()));
}

void BenchDevice::read() {
  buffer_ += port_.readAll();
  if (buffer_.size() > 100000) buffer_.clear();  // noise without a line's end
  for (;;) {
    const auto end = buffer_.indexOf('\n');
    if (end < 0) return;
    const auto parsed = parse_bench_line(buffer_.left(end).toStdString());
    buffer_.remove(0, end + 1);
    const auto* good = std::get_if<BenchLine>(&parsed);
    if (good && good->word == word_.toStdString())
      emit line(*good);
    else
      ++bad_lines_;
  }
}

}  // namespace kranich::app
