// SPDX-License-Identifier: GPL-3.0-or-later
//! The one window: bar, rail, page, strip.
#pragma once

#include <QAction>
#include <QComboBox>
#include <QLabel>
#include <QMainWindow>
#include <QPushButton>
#include <QSlider>
#include <QStackedWidget>
#include <optional>

#include "app/document/document.h"
#include "app/document/open_mark.h"
#include "app/start/next_page.h"
#include "app/start/start_page.h"
#include "app/stations/page.h"
#include "app/widgets/rail.h"

namespace kranich::app {

class MainWindow : public QMainWindow {
  Q_OBJECT
 public:
  explicit MainWindow(Document& document, QWidget* parent = nullptr);

  void show_station(Station station);
  //! The questions of a new project; what to measure next.
  void show_start();
  //! The manual's chapter about what is shown.
  QString chapter() const;
  void show_next();
  StartPage* start_page() { return start_; }
  NextPage* next_page() { return next_; }
  StationPage* page(Station station) const { return pages_[static_cast<size_t>(station)]; }
  Document& document() { return document_; }
  //! Opens a file and shows its faults if it has any; false then.
  bool open_file(const QString& path);
  bool save_to(const QString& path);
  //! Asks what to do with work that an earlier run left unsaved, if there is any.
  void offer_work_left_behind();
  //! Faults of the last file that could not be opened, as shown.
  QString last_fault() const { return last_fault_; }
  void set_dark(bool dark);
  //! Where the window stands, to build it anew in another language.
  std::optional<Station> shown_station() const;

 signals:
  //! Another language was chosen; what is shown is to be built anew.
  void language_changed();

 protected:
  void closeEvent(QCloseEvent*) override;
  void dragEnterEvent(QDragEnterEvent*) override;
  void dropEvent(QDropEvent*) override;

 private:
  void build_bar(class QHBoxLayout* bar);
  void build_actions();
  void rebuild_pages();
  void refresh_bar();
  void refresh_title();
  bool may_discard();
  bool may_overwrite();
  void show_faults(const QString& heading, const std::vector<Fault>& faults);
  void remember(const QString& path);
  void fill_recent();
  void choose_and_open();
  bool save();
  bool save_as();
  void export_csv();
  void tell(const QString& text, bool trouble = false);

  Document& document_;
  QLabel* name_;
  QLabel* summary_;
  QComboBox* loading_;
  std::vector<QPushButton*> states_;
  QSlider* gear_;
  QPushButton* pin_;
  QPushButton* units_;
  QPushButton* dark_;
  QLabel* message_;
  Rail* rail_;
  QStackedWidget* stack_;
  OpenMark mark_;  //!< of the file in hand
  MarginStrip* strip_;
  std::array<StationPage*, station_count> pages_{};
  Station station_ = Station::weigh;  //!< last shown
  StartPage* start_;
  NextPage* next_;
  QMenu* menu_;
  QMenu* recent_;
  QAction* undo_;
  QAction* redo_;
  QTimer message_timer_;
  QString last_fault_;
};

}  // namespace kranich::app
