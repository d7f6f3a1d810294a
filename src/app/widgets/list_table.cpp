// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/list_table.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/document/when_seen.h"
#include "app/theme.h"
#include "app/widgets/findings.h"
#include "app/widgets/quantity_edit.h"
#include "core/model/locate.h"

namespace kranich::app {

ListTable::ListTable(Document& document, QString path, std::vector<Column> columns,
                     std::function<void(Design&)> add, QWidget* parent)
    : QWidget(parent),
      document_(document),
      path_(std::move(path)),
      columns_(std::move(columns)),
      table_(new QTableWidget(this)),
      note_(new QLabel(this)) {
  table_->setObjectName("list:" + path_);
  table_->setAccessibleName(path_);
  table_->setColumnCount(static_cast<int>(columns_.size()));
  table_->verticalHeader()->setDefaultSectionSize(23);
  note_->setWordWrap(true);
  auto* line = new QHBoxLayout;
  line->addWidget(note_, 1);
  const auto button = [&](const char* id, const QString& text, auto&& does) {
    auto* b = new QPushButton(text, this);
    b->setObjectName(QString::fromLatin1(id) + path_);
    connect(b, &QPushButton::clicked, this, does);
    line->addWidget(b);
  };
  button("add:", tr("Add"), [this, add = std::move(add)] {
    document_.edit(tr("Add an entry"), [&](Design& d) {
      if (add)
        add(d);
      else
        add_to_list(d, path_.toStdString());
    });
  });
  button("remove:", tr("Remove"), [this] {
    const int row = table_->currentRow();
    if (row < 0 || row >= table_->rowCount()) return;
    document_.edit(tr("Remove an entry"),
                   [&](Design& d) { remove_from_list(d, path_.toStdString(), static_cast<size_t>(row)); });
  });
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(0, 0, 0, 0);
  all->addWidget(table_);
  all->addLayout(line);
  connect(table_, &QTableWidget::cellChanged, this, &ListTable::edited);
  refresh_when_seen(
      this, &document_, [this] { refresh(); }, &Document::changed);
  refresh();
}

namespace {

//! Legs, and for actors doors, with what they are called.
std::vector<std::pair<std::string, QString>> referents(const Design& d, Refers refers) {
  std::vector<std::pair<std::string, QString>> list;
  if (refers == Refers::actor)
    for (const auto& door : d.doors) list.emplace_back(door.id, text_of(d.actor_word(door.id), d.units));
  if (refers != Refers::nothing)
    for (const auto& leg : d.gear.legs)
      list.emplace_back(leg.id,
                        text_of(refers == Refers::actor ? d.legs_word(leg) : d.leg_word(leg), d.units));
  return list;
}

}  // namespace

QString ListTable::shown(const std::string& path, Refers refers) const {
  const Design& d = document_.design();
  if (const auto g = given_at(d, path)) {
    const Kind kind = spec_at(d, path)->kind;
    return !g->known()
               ? QString()
               : document_.say_number(g->si, kind) +
                     (g->tolerance > 0 ? " ± " + document_.say_number(g->tolerance, kind) : QString());
  }
  if (const auto* t = text_at(d, path)) {
    for (const auto& [id, name] : referents(d, refers))
      if (id == *t) return name;
    return QString::fromStdString(*t);
  }
  if (const auto* f = flag_at(d, path)) return *f ? tr("yes") : tr("no");
  if (const auto c = choice_at(d, path)) return text_of(c->names[static_cast<size_t>(c->index)]);
  return {};
}

void ListTable::refresh() {
  filling_ = true;
  const auto rows = static_cast<int>(list_size_at(document_.design(), path_.toStdString()).value_or(0));
  table_->setRowCount(rows);
  for (int c = 0; c < table_->columnCount(); ++c) {
    QString title = columns_[static_cast<size_t>(c)].title;
    const auto first = (path_ + "/0/" + columns_[static_cast<size_t>(c)].key).toStdString();
    if (const auto s = spec_at(document_.design(), first)) {
      const QString unit = document_.unit(s->kind);
      if (!unit.isEmpty()) title += ", " + unit;
    }
    table_->setHorizontalHeaderItem(c, new QTableWidgetItem(title));
    for (int r = 0; r < rows; ++r)
      table_->setItem(r, c,
                      new QTableWidgetItem(shown((path_ + "/%1/").arg(r).toStdString() +
                                                     columns_[static_cast<size_t>(c)].key.toStdString(),
                                                 columns_[static_cast<size_t>(c)].refers)));
  }
  table_->resizeColumnsToContents();
  filling_ = false;
}

QWidget* ListTable::show_entry(const QString& path) {
  if (!path.startsWith(path_ + "/")) return nullptr;
  const QString rest = path.mid(path_.size() + 1);
  const QString entry = rest.section('/', 0, 0);
  bool is_row = false;
  int row = entry.toInt(&is_row);
  if (!is_row) {  // named by its id
    for (row = 0; row < table_->rowCount(); ++row)
      if (const auto* id = text_at(document_.design(), (path_ + "/%1/id").arg(row).toStdString()))
        if (*id == entry.toStdString()) break;
  }
  if (row >= table_->rowCount()) return nullptr;
  for (size_t c = 0; c < columns_.size(); ++c)
    if (columns_[c].key == rest.section('/', 1)) {
      table_->setCurrentCell(row, static_cast<int>(c));
      return table_;
    }
  return nullptr;
}

void ListTable::edited(int row, int column) {
  if (filling_) return;
  const std::string path =
      (path_ + "/%1/").arg(row).toStdString() + columns_[static_cast<size_t>(column)].key.toStdString();
  const QString entry = table_->item(row, column)->text().trimmed();
  const auto refuse = [&](const QString& why) {
    refresh();
    note_->setText(
        QStringLiteral("<span style='color:%1'>%2</span>")
            .arg(Theme::now().fails.name(), tr("%1 – the last good value stays.").arg(why.toHtmlEscaped())));
  };
  note_->clear();
  Design probe = document_.design();
  const QString what = tr("Edit %1").arg(columns_[static_cast<size_t>(column)].title);
  if (const auto g = locate_given(probe, path)) {
    double si = std::numeric_limits<double>::quiet_NaN();
    std::optional<double> tolerance;
    if (!entry.isEmpty()) {
      const auto parsed = parse_with_tolerance(entry.toStdString(), g->spec.kind, document_.units());
      if (const auto* error = std::get_if<ParseError>(&parsed))
        return refuse(QString::fromStdString(error->message));
      si = std::get<ParsedWithTolerance>(parsed).value.si;
      tolerance =
          std::get<ParsedWithTolerance>(parsed).tolerance.value_or(0);  // what is shown is what is meant
      if (const auto why = refusal(si, g->spec, document_.units()))
        return refuse(QString::fromStdString(*why));
    }
    document_.edit(what, [&](Design& d) { put_entry(*locate_given(d, path)->given, si, tolerance); });
  } else if (locate_text(probe, path)) {
    std::string text = entry.toStdString();
    const auto known = referents(probe, columns_[static_cast<size_t>(column)].refers);
    if (!known.empty() && !(entry.isEmpty() && columns_[static_cast<size_t>(column)].may_be_none)) {
      QStringList words;
      bool found = false;
      for (const auto& [id, name] : known) {
        words << name;
        if (!found && (entry == name || text == id)) {
          text = id;
          found = true;
        }
      }
      if (!found) return refuse(tr("one of %1 was expected").arg(words.join(", ")));
    }
    document_.edit(what, [&](Design& d) { *locate_text(d, path) = text; });
  } else if (locate_flag(probe, path)) {
    if (entry != tr("yes") && entry != tr("no")) return refuse(tr("yes or no was expected"));
    document_.edit(what, [&](Design& d) { *locate_flag(d, path) = entry == tr("yes"); });
  } else if (const auto c = choice_at(probe, path)) {
    QStringList words;
    for (size_t i = 0; i < c->names.size(); ++i) {
      words << text_of(c->names[i]);
      if (entry == words.back()) {
        document_.edit(what, [&](Design& d) { set_choice(d, path, static_cast<int>(i)); });
        return refresh();
      }
    }
    return refuse(tr("one of %1 was expected").arg(words.join(", ")));
  }
  refresh();
}

FlagRow::FlagRow(Document& document, QString path, const QString& title, QWidget* parent)
    : QCheckBox(title, parent) {
  setObjectName("flag:" + path);
  const auto show = [this, &document, path = path.toStdString()] {
    const QSignalBlocker quiet(this);
    if (const bool* f = flag_at(document.design(), path)) setChecked(*f);
  };
  show();
  refresh_when_seen(this, &document, show, &Document::changed);
  connect(this, &QCheckBox::toggled, this, [this, &document, path = path.toStdString()](bool on) {
    document.edit(tr("Change %1").arg(text()), [&](Design& d) {
      if (bool* f = locate_flag(d, path)) *f = on;
    });
  });
}

TextRow::TextRow(Document& document, QString path, const QString& title, QWidget* parent) : QWidget(parent) {
  auto* line = new QHBoxLayout(this);
  line->setContentsMargins(0, 1, 0, 1);
  auto* label = new QLabel(title, this);
  label->setMinimumWidth(96);
  auto* field = new QLineEdit(this);
  field->setObjectName("text:" + path);
  field->setAccessibleName(title);
  line->addWidget(label);
  line->addWidget(field, 1);
  const auto show = [field, &document, path = path.toStdString()] {
    if (const auto* s = text_at(document.design(), path); s && !field->hasFocus()) {
      field->setText(QString::fromStdString(*s));
      field->setCursorPosition(0);
    }
  };
  show();
  refresh_when_seen(this, &document, show, &Document::changed);
  connect(field, &QLineEdit::editingFinished, this, [field, title, &document, path = path.toStdString()] {
    document.edit(tr("Set %1").arg(title), [&](Design& d) {
      if (auto* s = locate_text(d, path)) *s = field->text().toStdString();
    });
  });
}

}  // namespace kranich::app
