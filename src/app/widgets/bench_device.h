// SPDX-License-Identifier: GPL-3.0-or-later
//! A device of the bench on a serial line (docs/bench-protocol.md), or kranich-bench standing in for it.
#pragma once

#include <QByteArray>
#include <QObject>
#include <QProcess>
#include <QSerialPort>
#include <QStringList>

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
  int bad_lines() const { return bad_lines_; }

 signals:
  void line(const kranich::BenchLine& line);
  void opened(const QString& path);
  void trouble(const QString& why);

 private:
  void read();
  QString word_;
  QSerialPort port_;
  QProcess simulator_;
  QByteArray buffer_;
  int bad_lines_ = 0;
};

}  // namespace kranich::app
