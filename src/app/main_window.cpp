// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/main_window.h"

#include <QApplication>
#include <QCloseEvent>
#include <QDragEnterEvent>
#include <QDropEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QMenu>
#include <QMimeData>
#include <QSettings>
#include <QUrl>

#include "app/demo.h"
#include "app/document/journal.h"
#include "app/lead_to.h"
#include "app/manual.h"
#include "app/print/report.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/list_table.h"
#include "app/widgets/message.h"

namespace kranich::app {

MainWindow::MainWindow(Document& document, QWidget* parent) : QMainWindow(parent), document_(document) {
  setObjectName("main-window");
  setAcceptDrops(true);
  setMinimumSize(1000, 640);
  resize(1280, 800);
  auto* middle = new QWidget(this);
  auto* all = new QVBoxLayout(middle);
  all->setContentsMargins(0, 0, 0, 0);
  all->setSpacing(0);
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(12, 6, 12, 6);
  bar->setSpacing(7);
  build_actions();
  build_bar(bar);
  all->addLayout(bar);
  auto* row = new QHBoxLayout;
  row->setSpacing(0);
  rail_ = new Rail(document_, middle);
  stack_ = new QStackedWidget(middle);
  start_ = new StartPage(document_, stack_);
  next_ = new NextPage(document_, stack_);
  stack_->addWidget(start_);
  stack_->addWidget(next_);
  row->addWidget(rail_);
  row->addWidget(stack_, 1);
  all->addLayout(row, 1);
  strip_ = new MarginStrip(document_, middle);
  all->addWidget(strip_);
  setCentralWidget(middle);

  connect(start_, &StartPage::made, this, &MainWindow::show_next);
  connect(start_, &StartPage::without, this, [this] { show_station(Station::weigh); });
  connect(start_, &StartPage::go_to, this, [this](Station station, const QString& key) {
    show_station(station);
    if (!key.isEmpty()) page(station)->findings()->choose(key.toStdString());
  });
  connect(next_, &NextPage::go_to, this, &MainWindow::show_station);
  connect(next_, &NextPage::tell, this, &MainWindow::tell);
  connect(rail_, &Rail::chosen, this, &MainWindow::show_station);
  connect(strip_, &MarginStrip::go_to, this, [this](Station station, const QString& key) {
    show_station(station);
    page(station)->findings()->choose(key.toStdString());
  });
  connect(strip_, &MarginStrip::measure_next, this, &MainWindow::show_next);
  connect(&document_, &Document::started, this, &MainWindow::rebuild_pages);
  connect(&document_, &Document::started, this, [this] {
    if (document_.path().isEmpty()) mark_.take({});  // what is begun anew has no file
  });
  // What asked for another leg may be a part of the page itself: it is rebuilt once that is done.
  connect(&document_, &Document::legs_changed, this, &MainWindow::rebuild_pages, Qt::QueuedConnection);
  connect(&document_, &Document::changed, this, &MainWindow::refresh_bar);
  connect(&document_, &Document::view_changed, this, &MainWindow::refresh_bar);
  connect(&document_, &Document::file_changed, this, &MainWindow::refresh_title);
  connect(&document_, &Document::entry_wanted, this, [this](const QString& path) {
    if (!lead_to(*this, path)) tell(tr("There is no entry for %1 here.").arg(path), true);
  });
  connect(&document_, &Document::refused, this, [this](const QString& why) { tell(why, true); });
  connect(&document_.journal(), &Journal::chosen_changed, this, [this] { show_station(Station::bench); });
  message_timer_.setSingleShot(true);
  connect(&message_timer_, &QTimer::timeout, this, [this] { message_->clear(); });
  rebuild_pages();
  refresh_bar();
  refresh_title();
}

void MainWindow::build_actions() {
  menu_ = new QMenu(this);
  const auto action = [&](QMenu* into, const QString& text, const char* keys, auto&& does) {
    auto* a = new QAction(text, this);
    if (*keys) a->setShortcut(QKeySequence(QString::fromLatin1(keys)));
    connect(a, &QAction::triggered, this, does);
    into->addAction(a);
    addAction(a);
    return a;
  };
  action(menu_, tr("New project"), "Ctrl+N", [this] {
    if (!may_discard()) return;
    start_blank(document_);
    show_start();
  });
  action(menu_, tr("What to measure next"), "Ctrl+M", [this] { show_next(); });
  action(menu_, tr("Open …"), "Ctrl+O", [this] { choose_and_open(); });
  recent_ = menu_->addMenu(tr("Recent projects"));
  connect(recent_, &QMenu::aboutToShow, this, &MainWindow::fill_recent);
  auto* demos = menu_->addMenu(tr("Demonstration projects"));
  for (const QString& name : demo_names())
    action(demos, name, "", [this, name] {
      if (may_discard()) start_demo(document_, name);
    });
  menu_->addSeparator();
  action(menu_, tr("Save"), "Ctrl+S", [this] { save(); });
  action(menu_, tr("Save as …"), "Ctrl+Shift+S", [this] { save_as(); });
  menu_->addSeparator();
  undo_ = action(menu_, tr("Undo"), "Ctrl+Z", [this] { document_.undo(); });
  redo_ = action(menu_, tr("Redo"), "Ctrl+Shift+Z", [this] { document_.redo(); });
  menu_->addSeparator();
  action(menu_, tr("Aircraft and project …"), "Ctrl+E",
         [this] { make_project_dialog(document_, this)->show(); });
  action(menu_, tr("Outline and pictures …"), "Ctrl+T",
         [this] { make_outline_dialog(document_, this)->show(); });
  action(menu_, tr("Gear in space …"), "Ctrl+G", [this] { make_shaded_dialog(document_, this)->show(); });
  action(menu_, tr("Make it hold …"), "Ctrl+H", [this] { make_hold_dialog(document_, this)->show(); });
  action(menu_, tr("Variants side by side …"), "Ctrl+K",
         [this] { make_compare_dialog(document_, this)->show(); });
  menu_->addSeparator();
  action(menu_, tr("Report as PDF …"), "Ctrl+P", [this] { make_report_dialog(document_, this)->show(); });
  action(menu_, tr("Sheets for the bench …"), "Ctrl+Shift+P",
         [this] { make_shop_dialog(document_, this)->show(); });
  action(menu_, tr("All figures as CSV …"), "", [this] { export_csv(); });
  menu_->addSeparator();
  auto* speech = menu_->addMenu(tr("Language"));
  for (const Language& l : languages()) {
    auto* a = action(speech, l.name, "", [this, id = l.id] {
      if (id == spoken().id) return;
      QSettings().setValue("language", id);
      speak(id);
      emit language_changed();
    });
    a->setObjectName("language:" + l.id);
    a->setCheckable(true);
    a->setChecked(l.id == spoken().id);
  }
  action(menu_, tr("Manual"), "F1", [this] { show_manual(chapter(), this); });
  action(menu_, tr("Keys"), "", [this] { show_manual("keys", this); });
  action(menu_, tr("Cautions"), "", [this] { show_manual("cautions", this); });
  action(menu_, tr("Quit"), "Ctrl+Q", [this] { close(); });
}

void MainWindow::build_bar(QHBoxLayout* bar) {
  auto* project = new QPushButton(tr("Project"), this);
  project->setObjectName("project-menu");
  project->setMenu(menu_);
  bar->addWidget(project);
  name_ = new QLabel(this);
  name_->setFont(text_font(12, true));
  summary_ = new QLabel(this);
  summary_->setFont(text_font(8.5));
  message_ = new QLabel(this);
  message_->setObjectName("message");
  message_->setFont(text_font(8.5));
  bar->addWidget(name_);
  bar->addWidget(summary_);
  bar->addWidget(message_, 1);
  const auto small = [&](const QString& s) {
    auto* l = new QLabel(s, this);
    l->setFont(text_font(8.5));
    bar->addWidget(l);
    return l;
  };
  small(tr("Loading"));
  loading_ = new QComboBox(this);
  loading_->setObjectName("loading");
  loading_->setAccessibleName(tr("Loading"));
  loading_->setMinimumWidth(120);
  bar->addWidget(loading_);
  connect(loading_, &QComboBox::activated, this,
          [this](int) { document_.set_loading(loading_->currentText()); });
  auto* next = new QAction(this);
  next->setShortcut(QKeySequence(QStringLiteral("Ctrl+L")));
  connect(next, &QAction::triggered, this, [this] {
    if (loading_->count() == 0) return;
    loading_->setCurrentIndex((loading_->currentIndex() + 1) % loading_->count());
    document_.set_loading(loading_->currentText());
  });
  addAction(next);
  auto* segment = new QHBoxLayout;
  segment->setSpacing(0);
  for (const GearState s :
       {GearState::extended, GearState::static_load, GearState::bottomed, GearState::flat}) {
    auto* b = new QPushButton(text_of(gear_state_word(s)), this);
    b->setCheckable(true);
    b->setAutoExclusive(true);
    b->setObjectName("state:" + word_of_file(gear_state_word(s)));
    static const char* tips[]{
        QT_TR_NOOP("No weight on the wheels"), QT_TR_NOOP("The loading's weight carried at rest"),
        QT_TR_NOOP("Every leg at its stop"), QT_TR_NOOP("Bottomed, and the tyres flat")};
    b->setToolTip(tr(tips[static_cast<int>(s)]));
    connect(b, &QPushButton::clicked, this, [this, s] { document_.set_state(s); });
    b->ensurePolished();
    b->setMinimumWidth(b->sizeHint().width());  // its word is never cut
    segment->addWidget(b);
    states_.push_back(b);
  }
  bar->addLayout(segment);
  small(tr("Gear down"));
  gear_ = new QSlider(Qt::Horizontal, this);
  gear_->setObjectName("gear");
  gear_->setRange(0, 200);
  gear_->setFixedWidth(84);
  gear_->setAccessibleName(tr("Gear position, down to stowed"));
  gear_->setToolTip(tr("Swings the gear from down to stowed (aircraft on jacks, legs extended)"));
  bar->addWidget(gear_);
  connect(gear_, &QSlider::valueChanged, this, [this](int v) { document_.set_gear_position(v / 200.0); });
  small(tr("stowed"));
  const auto toggle = [&](const char* id, const char* keys, const QString& tip, auto&& does) {
    auto* b = new QPushButton(this);
    b->setObjectName(QString::fromLatin1(id));
    // A button forgets its shortcut when its text changes: an action keeps it.
    auto* key = new QAction(this);
    key->setShortcut(QKeySequence(QString::fromLatin1(keys)));
    connect(key, &QAction::triggered, b, &QPushButton::click);
    addAction(key);
    b->setToolTip(tip);
    connect(b, &QPushButton::clicked, this, does);
    bar->addWidget(b);
    return b;
  };
  pin_ = toggle("pin", "F8", tr("Keeps the design as it is now, and shows what changes against it (F8)"),
                [this] { document_.pinned() ? document_.unpin() : document_.pin(); });
  units_ = toggle("units", "Ctrl+U", tr("Metric or inch; no value changes (Ctrl+U)"), [this] {
    document_.edit(tr("Switch units"), [](Design& d) {
      d.units = d.units == UnitSystem::metric ? UnitSystem::inch : UnitSystem::metric;
    });
  });
  dark_ = toggle("dark", "Ctrl+D", tr("Light or dark (Ctrl+D)"), [this] { set_dark(!Theme::now().dark); });
}

void MainWindow::set_dark(bool dark) {
  document_.end_drag();  // the board that began it goes with its page
  Theme::choose(dark);
  QSettings().setValue("dark", dark);
  rebuild_pages();
  start_->restyle();
  refresh_bar();
}

void MainWindow::rebuild_pages() {
  QWidget* const beside = stack_->currentWidget() == start_ || stack_->currentWidget() == next_
                              ? stack_->currentWidget()
                              : nullptr;
  for (auto& p : pages_) {
    if (!p) continue;
    stack_->removeWidget(p);
    delete p;
    p = nullptr;
  }
#define KRANICH_STATION(id, title, uses) make_##id##_page,
  StationPage* (*make[])(Document&) = {KRANICH_STATIONS(KRANICH_STATION)};
#undef KRANICH_STATION
  for (int i = 0; i < station_count; ++i) {
    pages_[static_cast<size_t>(i)] = make[i](document_);
    stack_->addWidget(pages_[static_cast<size_t>(i)]);
  }
  if (beside)
    stack_->setCurrentWidget(beside);
  else
    show_station(station_);
}

void MainWindow::show_station(Station station) {
  station_ = station;
  stack_->setCurrentWidget(page(station));
  rail_->show_current(station);
}

QString MainWindow::chapter() const {
  for (int i = 0; i < station_count; ++i)
    if (stack_->currentWidget() == pages_[static_cast<size_t>(i)])
      return word_of_file(station_id(static_cast<Station>(i)));
  return QStringLiteral("start");
}

void MainWindow::show_start() {
  start_->begin();
  stack_->setCurrentWidget(start_);
  rail_->show_none();
}

void MainWindow::show_next() {
  stack_->setCurrentWidget(next_);
  rail_->show_none();
}

void MainWindow::refresh_bar() {
  const Design& d = document_.design();
  name_->setText(text_of(d.about.name));
  summary_->setText(tr("change %1").arg(text_of(d.about.revision)));
  summary_->setToolTip(text_of(d.about.summary));
  QStringList names;
  for (const auto& l : d.loadings) names << QString::fromStdString(l.name);
  QStringList shown;
  for (int i = 0; i < loading_->count(); ++i) shown << loading_->itemText(i);
  if (names != shown) {
    loading_->clear();
    loading_->addItems(names);
  }
  loading_->setCurrentText(document_.loading_name());
  states_[static_cast<size_t>(document_.state())]->setChecked(true);
  const bool retracts =
      std::any_of(d.gear.legs.begin(), d.gear.legs.end(), [](const Leg& l) { return l.retraction.fitted; });
  gear_->setEnabled(retracts);
  if (!gear_->isSliderDown()) gear_->setValue(static_cast<int>(std::lround(document_.gear_position() * 200)));
  pin_->setText(document_.pinned() ? tr("unpin") : tr("pin"));
  pin_->setStyleSheet(document_.pinned()
                          ? QStringLiteral("color: %1; border-color: %1;").arg(Theme::now().pinned.name())
                          : QString());
  units_->setText(d.units == UnitSystem::metric ? "mm" : "in");
  units_->setAccessibleName(tr("Units: %1").arg(units_->text()));
  dark_->setText(Theme::now().dark ? tr("light") : tr("dark"));
  undo_->setEnabled(!document_.undo_text().isEmpty());
  redo_->setEnabled(!document_.redo_text().isEmpty());
  undo_->setText(document_.undo_text().isEmpty() ? tr("Undo") : tr("Undo: %1").arg(document_.undo_text()));
  redo_->setText(document_.redo_text().isEmpty() ? tr("Redo") : tr("Redo: %1").arg(document_.redo_text()));
}

void MainWindow::refresh_title() {
  const QString file = document_.path().isEmpty() ? tr("not saved") : QFileInfo(document_.path()).fileName();
  setWindowTitle(
      tr("%1%2 – %3 – Kranich")
          .arg(QString::fromStdString(document_.design().about.name), document_.modified() ? "*" : "", file));
  if (document_.read_only()) tell(tr("Written by a newer Kranich: open for reading only."), true);
}

void MainWindow::tell(const QString& text, bool trouble) {
  QPalette p = message_->palette();
  p.setColor(QPalette::WindowText, trouble ? Theme::now().fails : Theme::now().accent);
  message_->setPalette(p);
  message_->setText(text);
  message_->setToolTip(text);
  message_timer_.start(12000);
}

bool MainWindow::open_file(const QString& path) {
  last_fault_.clear();
  OpenAs as = OpenAs::itself;
  if (const auto other = OpenMark::open_elsewhere(path)) {
    Message box(
        Message::Sign::asks, tr("Open elsewhere"),
        tr("“%1” is open in another Kranich (process %2). Two that save it would undo each other's work.")
            .arg(QFileInfo(path).fileName())
            .arg(*other),
        this);
    box.setObjectName("open-elsewhere");
    auto* look = box.answer(tr("Look at it only"), QMessageBox::AcceptRole, "open-read-only");
    auto* copy = box.answer(tr("Work on a copy"), QMessageBox::AcceptRole, "open-copy");
    box.stays(tr("Cancel"));
    box.exec();
    if (box.clickedButton() != look && box.clickedButton() != copy) return false;
    as = box.clickedButton() == look ? OpenAs::read_only : OpenAs::copy;
  }
  const auto faults = document_.open(path, as);
  if (faults.empty()) {
    if (as == OpenAs::itself)
      remember(path);
    else
      mark_.take({});
    if (as == OpenAs::copy) tell(tr("A copy: it has no file yet. Save it under a name of its own."));
    if (as == OpenAs::read_only) tell(tr("For reading only: another Kranich has it open."));
    if (document_.from_older())
      tell(tr("Written by an earlier Kranich: saving it writes it as this one does."));
    return true;
  }
  show_faults(tr("<b>%1</b> cannot be opened; the design in hand stays as it is.")
                  .arg(QFileInfo(path).fileName().toHtmlEscaped()),
              faults);
  return false;
}

void MainWindow::show_faults(const QString& heading, const std::vector<Fault>& faults) {
  QString text = QStringLiteral("<p>%1</p><ul>").arg(heading);
  int shown = 0;
  for (const auto& f : faults) {
    if (++shown > 12) break;
    text += QStringLiteral("<li><b>%1</b> %2</li>")
                .arg(QString::fromStdString(f.where).toHtmlEscaped(),
                     QString::fromStdString(f.what).toHtmlEscaped());
  }
  text += "</ul>";
  if (faults.size() > 12) text += tr("<p>and %1 more</p>").arg(faults.size() - 12);
  last_fault_ = text;
  Message::tell(tr("Faulty file"), text, "faults", this, Qt::RichText);
}

void MainWindow::offer_work_left_behind() {
  const auto all = work_left_behind();
  if (all.empty()) return;
  const LeftBehind& left = all.front();
  auto* box = new Message(
      Message::Sign::asks, tr("Work left behind"),
      tr("Kranich ended without saving on %1. Take up that work again%2?")
          .arg(QLocale().toString(left.when, QLocale::ShortFormat),
               left.belongs_to.isEmpty() ? QString()
                                         : tr(", on “%1”").arg(QFileInfo(left.belongs_to).fileName())),
      this);
  box->setObjectName("left-behind");
  box->setAttribute(Qt::WA_DeleteOnClose);
  auto* take = box->answer(tr("Take it up"), QMessageBox::AcceptRole);
  box->stays(tr("Not now"));
  auto* away = box->answer(tr("Put it away"), QMessageBox::DestructiveRole);
  connect(box, &QMessageBox::buttonClicked, this, [this, left, take, away](QAbstractButton* button) {
    if (button == away) tell(tr("put away as %1").arg(text_of(set_aside(left).string())));
    if (button != take) return;
    const auto faults = document_.recover(left);
    if (faults.empty()) return tell(tr("taken up again: not saved yet"));
    const auto where = set_aside(left);
    show_faults(tr("The work left behind cannot be opened; it is kept as %1.")
                    .arg(QString::fromStdString(where.string()).toHtmlEscaped()),
                faults);
  });
  box->open();
}

bool MainWindow::save_to(const QString& path) {
  if (path == document_.path() && document_.changed_outside() && !may_overwrite()) return false;
  if (const auto why = document_.save(path)) {
    tell(tr("not saved: %1").arg(*why), true);
    // The bar may be too short for it, and it matters.
    Message::tell(tr("Not saved"), tr("%1\n\n%2").arg(path, *why), "not-saved", this);
    return false;
  }
  remember(path);
  tell(tr("saved %1").arg(QFileInfo(path).fileName()));
  return true;
}

bool MainWindow::may_overwrite() {
  Message box(Message::Sign::warns, tr("Changed by somebody else"),
              tr("“%1” is not as it was when it was read: another program or another window has changed it.")
                  .arg(QFileInfo(document_.path()).fileName()),
              this);
  box.setObjectName("changed-outside");
  auto* other = box.answer(tr("Save under another name …"), QMessageBox::AcceptRole);
  auto* over = box.answer(tr("Save over it"), QMessageBox::DestructiveRole);
  box.stays(tr("Cancel"));
  box.exec();
  if (box.clickedButton() == other) {
    save_as();
    return false;  // saved there, or not at all
  }
  return box.clickedButton() == over;
}

bool MainWindow::save() {
  return document_.path().isEmpty() || document_.path().startsWith(":") ? save_as()
                                                                        : save_to(document_.path());
}

bool MainWindow::save_as() {
  QString path = QFileDialog::getSaveFileName(
      this, tr("Save project"), QString::fromStdString(document_.design().about.name).toLower() + ".kranich",
      tr("Kranich projects (*.kranich)"));
  if (path.isEmpty()) return false;
  if (QFileInfo(path).suffix().isEmpty()) path += ".kranich";
  return save_to(path);
}

void MainWindow::choose_and_open() {
  if (!may_discard()) return;
  const QString path = QFileDialog::getOpenFileName(this, tr("Open project"), {},
                                                    tr("Kranich projects (*.kranich);;All files (*)"));
  if (!path.isEmpty()) open_file(path);
}

bool MainWindow::may_discard() {
  if (!document_.modified()) return true;
  Message box(Message::Sign::asks, tr("Unsaved changes"),
              tr("“%1” has changes that are not saved.").arg(text_of(document_.design().about.name)), this);
  box.setObjectName("unsaved");
  auto* saves = box.answer(tr("Save"), QMessageBox::AcceptRole, "unsaved-save");
  auto* drops = box.answer(tr("Leave them behind"), QMessageBox::DestructiveRole, "unsaved-drop");
  box.stays(tr("Cancel"));
  box.exec();
  if (box.clickedButton() == saves) return save();
  return box.clickedButton() == drops;
}

void MainWindow::remember(const QString& path) {
  mark_.take(path);
  QSettings settings;
  QStringList list = settings.value("recent").toStringList();
  const QString absolute = QFileInfo(path).absoluteFilePath();
  list.removeAll(absolute);
  list.prepend(absolute);
  while (list.size() > 10) list.removeLast();
  settings.setValue("recent", list);
}

void MainWindow::fill_recent() {
  recent_->clear();
  for (const QString& path : QSettings().value("recent").toStringList())
    recent_->addAction(path, this, [this, path] {
      if (may_discard()) open_file(path);
    });
  if (recent_->isEmpty()) recent_->addAction(tr("none yet"))->setEnabled(false);
}

void MainWindow::export_csv() {
  const QString path = QFileDialog::getSaveFileName(
      this, tr("All figures"), QString::fromStdString(document_.design().about.name).toLower() + ".csv",
      tr("Tables (*.csv)"));
  if (path.isEmpty()) return;
  if (const auto why = write_figures(document_, path))
    tell(*why, true);
  else
    tell(tr("written to %1").arg(path));
}

void MainWindow::closeEvent(QCloseEvent* e) { may_discard() ? e->accept() : e->ignore(); }

void MainWindow::dragEnterEvent(QDragEnterEvent* e) {
  if (e->mimeData()->hasUrls()) e->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* e) {
  const auto urls = e->mimeData()->urls();
  if (!urls.isEmpty() && may_discard()) open_file(urls.first().toLocalFile());
}

std::optional<Station> MainWindow::shown_station() const {
  for (int i = 0; i < station_count; ++i)
    if (stack_->currentWidget() == page(static_cast<Station>(i))) return static_cast<Station>(i);
  return std::nullopt;
}

}  // namespace kranich::app
