// SPDX-License-Identifier: GPL-3.0-or-later
//! A device of the bench on a serial line (docs/bench-protocol.md), or kranich-bench standing in for it.
#pragma once

#include <QByteArray>
#include <QFile>
#include <QObject>
#include <QProcess>
#include <QSerialPort>
#include <QSocketNotifier>
#include <QStringList>
#include <QTimer>
#include <memory>

#include "core/io/bench_line.h"

namespace kranich::app {

class BenchDevice : public QObject {
  Q_OBJECT
 public:
  //! Takes lines of this word; others and faulty ones are counted and dropped.
  BenchDevice(QString word, QObject* parent = nullptr);
  ~BenchDevice() override;
  void open(const QString& path);
  //! Starts the stand-in with these arguments and listens to it.
  void simulate(const QStringList& arguments);
  //! Tells the device something; nothing where the line only goes one way or is not open.
  void send(const BenchLine& line);
  bool is_open() const { return port_.isOpen() || fifo_.isOpen(); }
  int bad_lines() const { return bad_lines_; }

 signals:
  void line(const kranich::BenchLine& line);
  void opened(const QString& path);
  void trouble(const QString& why);
  //! What was listened to is gone, or has said nothing for a while: readings in hand are of then, not of now.
  void lost(const QString& why);

 private:
  void take(const QByteArray& bytes);
  void close();
  QString word_;
  QSerialPort port_;
  QFile fifo_;  //!< instead of the port where the path is a named pipe
  std::unique_ptr<QSocketNotifier> fifo_ready_;
  QTimer silence_;
  QProcess simulator_;
  QByteArray buffer_;
  int bad_lines_ = 0;
};

}  // namespace kranich::app
