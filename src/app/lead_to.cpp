// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/lead_to.h"

#include <QComboBox>
#include <QDialog>
#include <QLineEdit>
#include <QScrollArea>
#include <QStackedWidget>
#include <QTabWidget>

#include "app/stations/page.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/entry_table.h"
#include "app/widgets/leg_switch.h"
#include "app/widgets/list_table.h"

namespace kranich::app {
namespace {

//! The entry of a path within a widget: a field, a choice, or the table whose list it stands in.
QWidget* entry_in(QWidget* within, const QString& path) {
  if (auto* field = within->findChild<QLineEdit*>("field:" + path)) return field;
  if (auto* choice = within->findChild<QComboBox*>("choice:" + path)) return choice;
  QWidgetList places = within->findChildren<QWidget*>();
  places.prepend(within);
  for (QWidget* place : places)
    if (auto* table = dynamic_cast<EntryTable*>(place))
      if (QWidget* cell = table->show_entry(path)) return cell;
  return nullptr;
}

//! Brings a widget to the front of every tab, stack and scroll area that it stands in.
void bring_forward(QWidget* entry) {
  for (QWidget* w = entry; w->parentWidget(); w = w->parentWidget()) {
    // A page of a tab widget or a stack stands in a stacked widget of its own.
    if (auto* tabs = qobject_cast<QTabWidget*>(w->parentWidget()->parentWidget()))
      if (tabs->indexOf(w) >= 0) tabs->setCurrentWidget(w);
    if (auto* area = qobject_cast<QScrollArea*>(w)) area->ensureWidgetVisible(entry);
  }
  entry->setFocus();
  if (auto* field = qobject_cast<QLineEdit*>(entry)) field->selectAll();
}

//! Looks into a window made for it; keeps it where the entry is there.
bool lead_into(QWidget* dialog, const QString& path) {
  QWidget* entry = entry_in(dialog, path);
  if (!entry) {
    delete dialog;
    return false;
  }
  dialog->show();
  bring_forward(entry);
  return true;
}

}  // namespace

bool lead_to(MainWindow& window, const QString& path) {
  const Gear& gear = window.document().design().gear;
  const std::string named = path.section("/gear/legs/", 1).section('/', 0, 0).toStdString();
  const std::string leg = gear.find(named) ? named : std::string();
  for (int i = 0; i < station_count; ++i) {
    const auto station = static_cast<Station>(i);
    if (QWidget* entry = entry_in(window.page(station), path)) {
      window.show_station(station);
      if (!leg.empty())
        if (auto* of = window.page(station)->findChild<LegSwitch*>())
          emit of->chosen(QString::fromStdString(leg));
      Fold::open_around(entry);
      bring_forward(entry);
      return true;
    }
  }
  // Jig, materials and lay-up stand in the window of any leg.
  const std::string any = !leg.empty() ? leg : gear.legs.empty() ? std::string() : gear.legs[0].id;
  if (!any.empty() && lead_into(make_leg_dialog(window.document(), any, &window), path)) return true;
  return lead_into(make_project_dialog(window.document(), &window), path);
}

}  // namespace kranich::app
