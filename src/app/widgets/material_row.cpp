// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/material_row.h"

#include <QHBoxLayout>
#include <QLabel>

#include "app/document/when_seen.h"
#include "app/widgets/findings.h"
#include "core/force/materials.h"
#include "core/model/locate.h"

namespace kranich::app {

MaterialRow::MaterialRow(Document& document, const QString& path, const QString& title, QWidget* parent)
    : QWidget(parent), box_(new QComboBox(this)) {
  auto* line = new QHBoxLayout(this);
  line->setContentsMargins(0, 1, 0, 1);
  auto* label = new QLabel(title, this);
  line->addWidget(label);
  line->addWidget(box_, 1);
  box_->setObjectName("material:" + path);
  box_->setAccessibleName(title);
  box_->setMinimumContentsLength(12);
  box_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  const auto show = [this, &document, key = path.toStdString()] {
    const Design& d = document.design();
    const std::string* name = text_at(d, key);
    if (!name) return;
    const QSignalBlocker quiet(box_);
    box_->clear();
    if (name->empty()) box_->addItem(tr("not chosen"), QString());
    bool known = name->empty();
    for (const auto& n : force::material_names(d.materials)) {
      box_->addItem(text_of(n), text_of(n));
      known = known || n == *name;
    }
    if (!known) box_->addItem(tr("%1 (not in the table)").arg(text_of(*name)), text_of(*name));
    box_->setCurrentIndex(box_->findData(text_of(*name)));
    if (const Material* m = force::find_material(d.materials, *name))
      box_->setToolTip(tr("yields at %1, breaks at %2%3. Typical values: confirm with your supplier.")
                           .arg(document.say(m->yield, Kind::stress), document.say(m->ultimate, Kind::stress),
                                m->remark.empty() ? QString() : "; " + text_of(m->remark)));
  };
  show();
  refresh_when_seen(this, &document, show, &Document::changed);
  connect(box_, &QComboBox::activated, this, [this, &document, title, key = path.toStdString()](int i) {
    const std::string name = box_->itemData(i).toString().toStdString();
    document.edit(tr("Choose %1").arg(title.toLower()), [&](Design& d) {
      if (auto* s = locate_text(d, key)) *s = name;
    });
  });
}

}  // namespace kranich::app
