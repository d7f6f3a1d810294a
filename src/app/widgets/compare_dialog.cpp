// SPDX-License-Identifier: GPL-3.0-or-later
#include <QCheckBox>
#include <QDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>
#include <cmath>

#include "app/theme.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/findings.h"
#include "core/assess/compare.h"
#include "core/io/variants.h"

namespace kranich::app {
namespace {

class CompareDialog : public QDialog {
 public:
  CompareDialog(Document& document, QWidget* parent) : QDialog(parent), document_(document) {
    setObjectName("compare-dialog");
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(QObject::tr("Variants side by side"));
    resize(980, 640);
    auto* all = new QVBoxLayout(this);
    auto* line = new QHBoxLayout;
    name_ = new QLineEdit(this);
    name_->setObjectName("variant-name");
    name_->setAccessibleName(QObject::tr("Name of the variant"));
    name_->setPlaceholderText(QObject::tr("a name for the design as it is now"));
    const auto button = [&](const QString& text, const char* id, const QString& tip, auto&& does) {
      auto* b = new QPushButton(text, this);
      b->setObjectName(id);
      b->setToolTip(tip);
      QObject::connect(b, &QPushButton::clicked, this, does);
      line->addWidget(b);
    };
    line->addWidget(name_, 1);
    button(QObject::tr("Keep as variant"), "variant-keep",
           QObject::tr("Keeps the design as it is under that name"), [this] { keep(); });
    button(QObject::tr("Take up"), "variant-take",
           QObject::tr("Makes the chosen variant the design in hand; Ctrl+Z takes it back"),
           [this] { take_up(); });
    button(QObject::tr("Remove"), "variant-remove", QObject::tr("Forgets the chosen variant"),
           [this] { remove(); });
    all->addLayout(line);
    auto* middle = new QHBoxLayout;
    list_ = new QListWidget(this);
    list_->setObjectName("variant-list");
    list_->setAccessibleName(QObject::tr("Variants; ticked ones are laid over the drawings"));
    list_->setMaximumWidth(200);
    middle->addWidget(list_);
    table_ = new QTableWidget(this);
    table_->setObjectName("compare-table");
    table_->setAccessibleName(QObject::tr("Figures side by side, what differs most first"));
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(22);
    middle->addWidget(table_, 1);
    all->addLayout(middle, 1);
    changed_ = new QLabel(this);
    changed_->setObjectName("compare-changed");
    changed_->setWordWrap(true);
    changed_->setFont(text_font(8));
    all->addWidget(changed_);
    QObject::connect(list_, &QListWidget::itemChanged, this, [this](QListWidgetItem*) {
      if (!filling_) lay_over();
    });
    QObject::connect(list_, &QListWidget::currentRowChanged, this, [this](int) { tell_changes(); });
    QObject::connect(&document_, &Document::changed, this, &CompareDialog::refresh);
    refresh();
  }
  ~CompareDialog() override { document_.lay_over({}); }

 private:
  struct Column {
    QString name;
    Design design;
    Assessment assessment;
  };

  void refresh() {
    if (document_.before_drag()) return;  // at the drag's end
    filling_ = true;
    QStringList ticked;
    for (int i = 0; i < list_->count(); ++i)
      if (list_->item(i)->checkState() == Qt::Checked) ticked << list_->item(i)->text();
    const int row = list_->currentRow();
    list_->clear();
    columns_.clear();
    columns_.push_back({QObject::tr("now"), document_.design(), document_.assessment()});
    if (document_.pinned())
      columns_.push_back({QObject::tr("pinned"), *document_.pinned(), *document_.pinned_assessment()});
    for (const auto& v : document_.design().variants) {
      const auto design = variant(document_.design(), v.name);
      if (!design) continue;
      const QString name = QString::fromStdString(v.name);
      columns_.push_back({name, *design, assess(*design)});
      auto* item = new QListWidgetItem(name, list_);
      item->setFlags(item->flags() | Qt::ItemIsUserCheckable);
      item->setCheckState(ticked.contains(name) ? Qt::Checked : Qt::Unchecked);
    }
    list_->setCurrentRow(std::min(std::max(row, 0), list_->count() - 1));
    filling_ = false;
    fill_table();
    tell_changes();
  }

  void fill_table() {
    std::vector<const Assessment*> assessments;
    QStringList heads{QObject::tr("Figure")};
    for (const auto& c : columns_) {
      assessments.push_back(&c.assessment);
      heads << c.name;
    }
    const auto rows = compare(assessments);
    table_->setColumnCount(static_cast<int>(heads.size()));
    table_->setHorizontalHeaderLabels(heads);
    table_->setRowCount(static_cast<int>(rows.size()));
    for (int r = 0; r < table_->rowCount(); ++r) {
      const auto& row = rows[static_cast<size_t>(r)];
      const Finding* any = nullptr;
      for (const auto& f : row.findings)
        if (f) any = &*f;
      table_->setItem(r, 0, new QTableWidgetItem(title_of(*any, document_.units())));
      for (size_t c = 0; c < columns_.size(); ++c) {
        auto* cell = new QTableWidgetItem;
        if (const auto& f = row.findings[c]) {
          cell->setText(f->limit.set() ? QStringLiteral("%1  %2").arg(value_text(*f, document_.units()),
                                                                      text_of(verdict_word(f->verdict)))
                                       : value_text(*f, document_.units()));
          if (f->limit.set()) cell->setForeground(Theme::now().of(f->verdict));
        } else {
          cell->setText(QStringLiteral("–"));
        }
        cell->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
        if (row.difference > 0) {
          QFont font = figure_font(9, true);
          cell->setFont(font);
        }
        table_->setItem(r, static_cast<int>(c) + 1, cell);
      }
    }
    table_->resizeColumnsToContents();
  }

  void lay_over() {
    std::vector<Document::Laid> laid;
    for (int i = 0; i < list_->count(); ++i) {
      if (list_->item(i)->checkState() != Qt::Checked) continue;
      for (const auto& c : columns_)
        if (c.name == list_->item(i)->text()) laid.push_back({c.name, c.design, c.assessment});
    }
    document_.lay_over(std::move(laid));
  }

  const Column* chosen() const {
    const auto* item = list_->currentItem();
    if (!item) return nullptr;
    for (const auto& c : columns_)
      if (c.name == item->text()) return &c;
    return nullptr;
  }

  void tell_changes() {
    const Column* c = chosen();
    if (!c) {
      changed_->setText(
          QObject::tr("Keep the design under a name, change it, and see both side by side; ticked "
                      "variants are laid over the drawings in violet."));
      return;
    }
    QStringList parts;
    const auto changes = changed_inputs(document_.design(), c->design);
    for (const auto& x : changes) {
      if (parts.size() >= 12) {
        parts << QObject::tr("and %1 more").arg(changes.size() - 12);
        break;
      }
      const auto say = [&](double v) { return document_.say(v, x.kind); };
      parts << QStringLiteral("%1 %2 → %3").arg(text_of(x.title), say(x.before), say(x.after));
    }
    changed_->setText(parts.isEmpty()
                          ? QObject::tr("“%1” has the same numbers as the design now.").arg(c->name)
                          : QObject::tr("From now to “%1”: %2").arg(c->name, parts.join("; ")));
  }

  void keep() {
    const std::string name = name_->text().trimmed().toStdString();
    if (name.empty()) {
      changed_->setText(QObject::tr("A variant needs a name."));
      return;
    }
    document_.edit(QObject::tr("Keep “%1”").arg(name_->text()),
                   [&](Design& d) { keep_variant(d, name, ""); });
    name_->clear();
  }
  void take_up() {
    const Column* c = chosen();
    if (!c) return;
    const auto variants = document_.design().variants;
    const Design taken = c->design;
    document_.edit(QObject::tr("Take up “%1”").arg(c->name), [&](Design& d) {
      d = taken;
      d.variants = variants;
    });
  }
  void remove() {
    const Column* c = chosen();
    if (!c) return;
    const std::string name = c->name.toStdString();
    document_.edit(QObject::tr("Forget “%1”").arg(c->name), [&](Design& d) {
      std::erase_if(d.variants, [&](const Variant& v) { return v.name == name; });
    });
    lay_over();
  }

  Document& document_;
  QLineEdit* name_;
  QListWidget* list_;
  QTableWidget* table_;
  QLabel* changed_;
  std::vector<Column> columns_;
  bool filling_ = false;
};

}  // namespace

QWidget* make_compare_dialog(Document& document, QWidget* parent) {
  return new CompareDialog(document, parent);
}

}  // namespace kranich::app
