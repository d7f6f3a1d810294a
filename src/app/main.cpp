// SPDX-License-Identifier: GPL-3.0-or-later
#include <QApplication>
#include <QCommandLineParser>
#include <QDir>
#include <QIcon>
#include <QLineEdit>
#include <QLocale>
#include <QPushButton>
#include <QSettings>
#include <QTabWidget>
#include <QThread>
#include <QTimer>
#include <cstdio>
#include <functional>
#include <memory>

#include "app/demo.h"
#include "app/document/journal.h"
#include "app/document/signals.h"
#include "app/main_window.h"
#include "app/manual.h"
#include "app/print/report.h"
#include "app/print/templates.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/dialogs.h"
#include "core/assess/drive_offers.h"
#include "core/io/variants.h"
#include "core/model/moves.h"

namespace {

using namespace kranich;
using namespace kranich::app;

//! Lets the window's timers run their course.
void settle(int rounds) {
  for (int round = 0; round < rounds; ++round) {
    QApplication::processEvents(QEventLoop::AllEvents, 20);
    QApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    QThread::msleep(10);
  }
}

//! One picture of each main view, for documentation and for looking without a display.
bool write_pictures(MainWindow& window, const QString& directory) {
  QDir().mkpath(directory);
  bool good = true;
  const auto save = [&](QWidget& widget, const QString& name) {
    const QString file = QStringLiteral("%1/%2.png").arg(directory, name);
    good = widget.grab().save(file) && good;
    std::printf("%s\n", qPrintable(file));
  };
  for (int i = 0; i < station_count; ++i) {
    const auto station = static_cast<Station>(i);
    window.show_station(station);
    window.document().set_gear_position(station == Station::swing   ? 0.55
                                        : station == Station::doors ? 0.4
                                                                    : 0);
    settle(station == Station::weigh ? 40 : 12);  // the first one waits for the tolerances
    save(window, QString::fromUtf8(station_id(station).data()));
  }
  window.show_station(Station::logic);
  if (auto* faults = window.findChild<QPushButton*>("logic-faults")) {
    faults->click();
    settle(12);
    save(window, QStringLiteral("logic-faults"));
  }
  // The other views of Bench, a step with a row of readings among them.
  window.show_station(Station::bench);
  for (const char* view : {"all", "ladder", "book", "register"}) {
    if (view == std::string("all")) window.document().journal().choose("springs.template", "");
    window.findChild<QPushButton*>(QStringLiteral("bench-%1").arg(view))->click();
    settle(4);
    save(window, QStringLiteral("bench-%1").arg(view));
  }
  // The other views of Spring.
  window.show_station(Station::spring);
  for (const char* view : {"bump", "scatter", "bench"}) {
    window.findChild<QPushButton*>(QStringLiteral("view-%1").arg(view))->click();
    settle(3);
    if (view == std::string("scatter")) {
      window.findChild<QPushButton*>(QStringLiteral("run-scatter"))->click();
      settle(150);
    }
    if (view == std::string("bench")) {
      window.findChild<QPushButton*>(QStringLiteral("rig-simulate"))->click();
      settle(250);
    }
    save(window, QStringLiteral("spring-%1").arg(view));
  }
  // A new project's questions, three of them answered; what to measure next for the aircraft they lead to.
  {
    Document fresh;
    start_blank(fresh);
    MainWindow beginning(fresh);
    beginning.resize(window.size());
    beginning.show();
    beginning.show_start();
    StartPage* page = beginning.start_page();
    for (const char* answer : {"answer-seats-2", "answer-retractable", "answer-field-1"})
      page->findChild<QPushButton*>(QString::fromLatin1(answer))->click();
    auto* mass = page->findChild<QLineEdit*>("answer-mass");
    mass->setText("640");
    emit mass->textEdited("640");
    settle(6);
    save(beginning, QStringLiteral("start"));
    page->findChild<QPushButton*>("start-make")->click();
    for (int wait = 0; wait < 60 && !fresh.tolerances(); ++wait) settle(10);
    settle(6);
    save(beginning, QStringLiteral("measure-next"));
    beginning.show_station(Station::place);
    settle(6);
    save(beginning, QStringLiteral("started"));
    fresh.start(Design(), QString());  // nothing of it is to be kept
  }
  // The windows beside the stations, on a copy of the design that has a variant to compare with.
  Document& document = window.document();
  document.edit(QObject::tr("Keep “as drawn”"), [](Design& d) {
    keep_variant(d, "as drawn", "");
    shift_mains(d, -0.021, 0, 0);
  });
  // The outline, a chapter of the manual, drives side by side.
  document.edit(QObject::tr("Drives to compare"), [](Design& d) {
    Leg& leg = d.gear.legs.front();
    leg.retraction.drive_offers.push_back(offer_of(leg, "copy, less bore"));
    leg.retraction.drive_offers.back().drive.bore.si *= 0.55;
    leg.retraction.drive_offers.back().rejected = "too weak on jacks";
    leg.retraction.drive_offers.push_back(offer_of(leg, "electric"));
    leg.retraction.drive_offers.back().drive.kind = DriveKind::actuator;
    leg.retraction.drive_offers.back().sold.powerless = Powerless::stays;
  });
  for (const auto& [name, widget] :
       {std::pair{"outline", make_outline_dialog(document, &window)},
        std::pair{"space", make_shaded_dialog(document, &window)},
        std::pair{"manual", show_manual("place", &window)},
        std::pair{"drives", make_drive_dialog(document, document.design().gear.legs.front().id, &window)}}) {
    widget->show();
    settle(4);
    save(*widget, QString::fromLatin1(name));
    delete widget;
  }
  QWidget* beside[]{make_hold_dialog(document, &window),
                    make_compare_dialog(document, &window),
                    make_wheel_dialog(document, document.design().gear.main().id, &window),
                    make_scales_dialog(document, &window),
                    make_shop_dialog(document, &window),
                    make_leg_dialog(document, document.design().gear.main().id, &window)};
  const char* names[]{"hold", "variants", "wheels", "scales", "sheets", "alignment"};
  for (int i = 0; i < 6; ++i) {
    beside[i]->show();
    if (i == 3)
      if (auto* simulate = beside[i]->findChild<QPushButton*>("scales-simulate")) {
        simulate->click();
        settle(450);  // until the scales are steady
      }
    if (auto* tabs = beside[i]->findChild<QTabWidget*>("leg-tabs")) tabs->setCurrentIndex(2);
    settle(i == 0 ? 300 : 10);  // until the ways are found
    save(*beside[i], QString::fromLatin1(names[i]));
    beside[i]->close();
  }
  return good;
}

}  // namespace

int main(int argc, char** argv) {
  QApplication application(argc, argv);
  QApplication::setApplicationName(QStringLiteral("kranich"));
  QApplication::setApplicationDisplayName(QStringLiteral("Kranich"));
  QApplication::setApplicationVersion(QStringLiteral(KRANICH_VERSION));
  QApplication::setDesktopFileName(QStringLiteral("kranich"));
  QApplication::setWindowIcon(QIcon(QStringLiteral(":/icons/kranich.svg")));
  QSettings::setDefaultFormat(QSettings::IniFormat);
  QLocale::setDefault(QLocale::c());

  QCommandLineParser parser;
  parser.setApplicationDescription(QStringLiteral("A workbench for aircraft landing gear."));
  parser.addHelpOption();
  parser.addVersionOption();
  parser.addPositionalArgument(QStringLiteral("FILE"), QStringLiteral("project to open (.kranich)"),
                               QStringLiteral("[FILE]"));
  const QCommandLineOption demo(
      QStringLiteral("demo"),
      QStringLiteral("Start with a demonstration project: %1.").arg(demo_names().join(", ")),
      QStringLiteral("name"));
  const QCommandLineOption pictures(
      QStringLiteral("pictures"),
      QStringLiteral("Write a picture of each main view into a directory and end."),
      QStringLiteral("directory"));
  const QCommandLineOption report(QStringLiteral("report"),
                                  QStringLiteral("Write the report as PDF and end."), QStringLiteral("pdf"));
  const QCommandLineOption sheets(
      QStringLiteral("sheets"),
      QStringLiteral("Write every sheet for the bench as PDF, SVG and DXF and end."),
      QStringLiteral("directory"));
  const QCommandLineOption dark(QStringLiteral("dark"), QStringLiteral("Dark colours."));
  const QCommandLineOption size(QStringLiteral("size"), QStringLiteral("Size of the window."),
                                QStringLiteral("WIDTHxHEIGHT"));
  const QCommandLineOption language(QStringLiteral("language"),
                                    QStringLiteral("Language of the window: en, de."), QStringLiteral("id"));
  parser.addOptions({demo, pictures, report, sheets, dark, size, language});
  parser.process(application);

  load_fonts();
  const bool batch = parser.isSet(pictures) || parser.isSet(report) || parser.isSet(sheets);
  Theme::choose(parser.isSet(dark) || (!batch && QSettings().value("dark").toBool()));
  speak(parser.isSet(language) ? parser.value(language)
        : batch                ? QString()
                               : QSettings().value("language").toString());
  Document document;
  start_demo(document, demo_names().first());
  if (parser.isSet(demo) && !start_demo(document, parser.value(demo))) {
    std::fprintf(stderr, "kranich: no demonstration project “%s”; there are %s\n",
                 qPrintable(parser.value(demo)), qPrintable(demo_names().join(", ")));
    return 2;
  }
  auto window = std::make_unique<MainWindow>(document);
  if (const auto wh = parser.value(size).split('x'); wh.size() == 2)
    window->resize(wh[0].toInt(), wh[1].toInt());
  const auto files = parser.positionalArguments();
  if (batch) {
    if (!files.isEmpty()) {
      const auto faults = document.open(files[0]);
      for (const auto& f : faults)
        std::fprintf(stderr, "%s: %s: %s\n", qPrintable(files[0]), f.where.c_str(), f.what.c_str());
      if (!faults.empty()) return 2;
    }
    if (parser.isSet(report)) {
      if (const auto why = write_report(document, parser.value(report))) {
        std::fprintf(stderr, "kranich: %s\n", qPrintable(*why));
        return 4;
      }
    }
    if (parser.isSet(sheets)) {
      if (const auto why = write_shop_sheets(document, parser.value(sheets))) {
        std::fprintf(stderr, "kranich: %s\n", qPrintable(*why));
        return 4;
      }
    }
    if (parser.isSet(pictures)) {
      window->show();
      window->show_station(Station::place);
      return write_pictures(*window, parser.value(pictures)) ? 0 : 4;
    }
    return 0;
  }
  // Another language: the same document in a window built anew, where the old one stood.
  std::function<void()> in_another = [&] {
    auto next = std::make_unique<MainWindow>(document);
    next->setGeometry(window->geometry());
    const auto station = window->shown_station();
    next->show();
    next->show_station(station.value_or(Station::place));
    window->hide();
    window.release()->deleteLater();  // it is the one that is asking
    window = std::move(next);
    QObject::connect(window.get(), &MainWindow::language_changed, window.get(), in_another,
                     Qt::QueuedConnection);
  };
  QObject::connect(window.get(), &MainWindow::language_changed, window.get(), in_another,
                   Qt::QueuedConnection);
  window->show();
  window->show_station(Station::place);
  if (!files.isEmpty()) window->open_file(files[0]);
  QTimer::singleShot(0, window.get(), [&] { window->offer_work_left_behind(); });
  // Asked to end from outside (log-out, shutdown, kill): unsaved work waits for the next start.
  Signals from_outside;
  QObject::connect(&from_outside, &Signals::came, &application, [&] {
    document.leave_for_next_start();
    QApplication::exit(0);
  });
  return QApplication::exec();
}
