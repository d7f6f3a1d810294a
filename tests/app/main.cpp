// SPDX-License-Identifier: GPL-3.0-or-later
#define CATCH_CONFIG_RUNNER
#include <QApplication>
#include <QLocale>
#include <QSettings>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <catch2/catch.hpp>

#include "app/theme.h"

int main(int argc, char** argv) {
  QTemporaryDir home;                                     // nothing of the user's is read or written
  const QByteArray given = qgetenv("KRANICH_TEST_HOME");  // a child process shares its parent's
  const QByteArray path = given.isEmpty() ? home.path().toUtf8() : given;
  for (const char* name : {"KRANICH_TEST_HOME", "XDG_CONFIG_HOME", "XDG_DATA_HOME"}) qputenv(name, path);
  QApplication application(argc, argv);
  QApplication::setApplicationName("kranich-test");
  QSettings::setDefaultFormat(QSettings::IniFormat);
  QLocale::setDefault(QLocale::c());
  kranich::app::load_fonts();
  kranich::app::Theme::choose(false);
  return Catch::Session().run(argc, argv);
}
