// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/list_table.h"

#include <QClipboard>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QPushButton>
#include <QScrollBar>
#include <QShortcut>
#include <QVBoxLayout>

#include "app/document/when_seen.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/findings.h"
#include "app/widgets/quantity_edit.h"
#include "core/model/locate.h"

namespace kranich::app {

namespace {
constexpr int row_height = 23;
}

void ListTable::fit_height(int rows) {
  // As high as what is in it, within reason: what follows below is seen too.
  constexpr int fewest = 2;
  constexpr int most = 10;
  const int bar = table_->horizontalScrollBar()->sizeHint().height();
  table_->setFixedHeight(table_->horizontalHeader()->sizeHint().height() +
                         row_height * std::clamp(rows, fewest, most) + 2 * table_->frameWidth() + bar);
}

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
  table_->verticalHeader()->setDefaultSectionSize(row_height);
  note_->setWordWrap(true);
  auto* line = new QHBoxLayout;
  line->addWidget(note_, 1);
  const auto button = [&](const char* id, const QString& text, auto&& does) {
    auto* b = new QPushButton(text, this);
    b->setObjectName(QString::fromLatin1(id) + path_);
    connect(b, &QPushButton::clicked, this, does);
    line->addWidget(b);
  };
  add_ = std::move(add);
  auto* pastes =
      new QShortcut(QKeySequence(QKeySequence::Paste), table_, nullptr, nullptr, Qt::WidgetShortcut);
  connect(pastes, &QShortcut::activated, this, &ListTable::paste);
  auto* copies =
      new QShortcut(QKeySequence(QKeySequence::Copy), table_, nullptr, nullptr, Qt::WidgetShortcut);
  connect(copies, &QShortcut::activated, this, [this] { copy(); });
  table_->setToolTip(
      tr("Rows and columns copied from a spreadsheet are pasted from the chosen cell on (Ctrl+V)"));
  button("add:", tr("Add"), [this] {
    document_.edit(tr("Add an entry"), [&](Design& d) {
      if (add_)
        add_(d);
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

//! Legs, and for actors doors and aids, with what they are called.
std::vector<std::pair<std::string, QString>> referents(const Design& d, Refers refers) {
  std::vector<std::pair<std::string, QString>> list;
  if (refers == Refers::actor)
    for (const auto& door : d.doors) list.emplace_back(door.id, text_of(d.actor_word(door.id), d.units));
  if (refers == Refers::actor)
    for (const auto& aid : d.sequence.aids) list.emplace_back(aid.id, text_of(d.actor_word(aid.id), d.units));
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
  fit_height(rows);
  if (row_words_) table_->setVerticalHeaderLabels(row_words_(document_.design()));
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

bool ListTable::owns(const QString& path) {
  return path.startsWith(path_ + "/") && std::any_of(columns_.begin(), columns_.end(), [&](const Column& c) {
           return c.key == path.mid(path_.size() + 1).section('/', 1);
         });
}

QString ListTable::put(Design& d, int row, int column, const QString& entry) const {
  const Column& of = columns_[static_cast<size_t>(column)];
  const std::string path = (path_ + "/%1/").arg(row).toStdString() + of.key.toStdString();
  if (const auto g = locate_given(d, path)) {
    double si = std::numeric_limits<double>::quiet_NaN();
    std::optional<double> tolerance;
    if (!entry.isEmpty()) {
      const auto parsed = parse_with_tolerance(as_typed(entry), g->spec.kind, document_.units());
      if (const auto* error = std::get_if<ParseError>(&parsed)) return QString::fromStdString(error->message);
      si = std::get<ParsedWithTolerance>(parsed).value.si;
      tolerance =
          std::get<ParsedWithTolerance>(parsed).tolerance.value_or(0);  // what is shown is what is meant
      if (const auto why = refusal(si, g->spec, document_.units())) return QString::fromStdString(*why);
    }
    put_entry(*g->given, si, tolerance);
  } else if (auto* text = locate_text(d, path)) {
    std::string value = entry.toStdString();
    const auto known = referents(d, of.refers);
    if (!known.empty() && !(entry.isEmpty() && of.may_be_none)) {
      QStringList words;
      bool found = false;
      for (const auto& [id, name] : known) {
        words << name;
        if (!found && (entry == name || value == id)) {
          value = id;
          found = true;
        }
      }
      if (!found) return tr("one of %1 was expected").arg(words.join(", "));
    }
    *text = value;
  } else if (bool* flag = locate_flag(d, path)) {
    if (entry != tr("yes") && entry != tr("no")) return tr("yes or no was expected");
    *flag = entry == tr("yes");
  } else if (const auto c = choice_at(d, path)) {
    QStringList words;
    for (size_t i = 0; i < c->names.size(); ++i) {
      words << text_of(c->names[i]);
      if (entry != words.back()) continue;
      set_choice(d, path, static_cast<int>(i));
      return {};
    }
    return tr("one of %1 was expected").arg(words.join(", "));
  }
  return {};
}

void ListTable::refuse(const QString& why) {
  refresh();
  note_->setText(
      QStringLiteral("<span style='color:%1'>%2</span>")
          .arg(Theme::now().fails.name(), tr("%1 – the last good value stays.").arg(why.toHtmlEscaped())));
}

void ListTable::edited(int row, int column) {
  if (filling_) return;
  note_->clear();
  const QString entry = table_->item(row, column)->text().trimmed();
  Design probe = document_.design();
  if (const QString why = put(probe, row, column, entry); !why.isEmpty()) return refuse(why);
  document_.edit(tr("Edit %1").arg(columns_[static_cast<size_t>(column)].title),
                 [&](Design& d) { put(d, row, column, entry); });
  refresh();
}

void ListTable::paste() {
  const QString copied = QGuiApplication::clipboard()->text();
  if (copied.isEmpty() || columns_.empty()) return;
  QStringList lines = copied.split('\n');
  if (lines.last().trimmed().isEmpty()) lines.removeLast();
  const int first_row = std::max(0, table_->currentRow());
  const int first_column = std::max(0, table_->currentColumn());
  note_->clear();
  // All of it or nothing: a table half taken is worse than none.
  QString why;
  const auto fill = [&](Design& d) {
    const std::string list = path_.toStdString();
    for (int r = 0; r < lines.size(); ++r) {
      while (list_size_at(d, list).value_or(0) <= static_cast<size_t>(first_row + r)) {
        const size_t before = list_size_at(d, list).value_or(0);
        if (add_)
          add_(d);
        else
          add_to_list(d, list);
        if (list_size_at(d, list).value_or(0) <= before) {
          why = tr("row %1: the list takes no more").arg(r + 1);
          return;
        }
      }
      const QStringList cells = QString(lines[r]).remove('\r').split('\t');
      for (int c = 0; c < cells.size(); ++c) {
        if (first_column + c >= table_->columnCount()) {
          why = tr("row %1 has %2 cells, from here on the table has %3")
                    .arg(r + 1)
                    .arg(cells.size())
                    .arg(table_->columnCount() - first_column);
          return;
        }
        const QString refused = put(d, first_row + r, first_column + c, cells[c].trimmed());
        if (refused.isEmpty()) continue;
        why = tr("row %1, %2: “%3”: %4")
                  .arg(r + 1)
                  .arg(columns_[static_cast<size_t>(first_column + c)].title, cells[c].trimmed(), refused);
        return;
      }
    }
  };
  Design probe = document_.design();
  fill(probe);
  if (!why.isEmpty()) {
    refuse(why);
    return;
  }
  document_.edit(tr("Paste %n row(s)", nullptr, static_cast<int>(lines.size())), fill);
  refresh();
}

void ListTable::copy() const {
  QStringList lines;
  for (const auto& range : table_->selectedRanges())
    for (int r = range.topRow(); r <= range.bottomRow(); ++r) {
      QStringList cells;
      for (int c = range.leftColumn(); c <= range.rightColumn(); ++c) cells << table_->item(r, c)->text();
      lines << cells.join('\t');
    }
  if (!lines.isEmpty()) QGuiApplication::clipboard()->setText(lines.join('\n') + '\n');
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

void ListTable::head_rows(std::function<QStringList(const Design&)> words) {
  row_words_ = std::move(words);
  refresh();
}

ListTables::ListTables(Document& document, std::function<std::vector<Each>(const Design&)> which,
                       std::vector<Column> columns, QWidget* parent)
    : QWidget(parent), document_(document), which_(std::move(which)), columns_(std::move(columns)) {
  new QVBoxLayout(this);
  layout()->setContentsMargins(0, 0, 0, 0);
  refresh_when_seen(
      this, &document_, [this] { refresh(); }, &Document::changed);
  refresh();
}

void ListTables::refresh() {
  auto wanted = which_(document_.design());
  if (wanted == shown_) return;
  shown_ = std::move(wanted);
  while (QLayoutItem* item = layout()->takeAt(0)) {
    if (item->widget()) item->widget()->deleteLater();
    delete item;
  }
  for (const Each& e : shown_) {
    auto* title = new QLabel(e.title, this);
    title->setTextFormat(Qt::PlainText);
    title->setWordWrap(true);
    layout()->addWidget(title);
    layout()->addWidget(new ListTable(document_, e.path, columns_, {}, this));
  }
}

}  // namespace kranich::app
