// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/layout_row.h"

#include <QHBoxLayout>
#include <QLabel>

#include "app/document/when_seen.h"
#include "core/model/moves.h"

namespace kranich::app {

LayoutRow::LayoutRow(Document& document, const QString& title, QWidget* parent)
    : QWidget(parent), document_(document), box_(new QComboBox(this)) {
  box_->setObjectName("choice:/gear/layout");
  box_->setAccessibleName(title);
  for (const auto& [layout, text] : {std::pair{Layout::tricycle, tr("mains and a nose wheel")},
                                     {Layout::tailwheel, tr("mains and a tail wheel")},
                                     {Layout::tandem, tr("tandem mains, outriggers")},
                                     {Layout::quadricycle, tr("four mains at the corners")},
                                     {Layout::four_mains, tr("four mains and a nose wheel")},
                                     {Layout::none, tr("something else")}})
    box_->addItem(text, static_cast<int>(layout));
  auto* line = new QHBoxLayout(this);
  line->setContentsMargins(0, 1, 0, 1);
  auto* label = new QLabel(title, this);
  label->setBuddy(box_);
  line->addWidget(label, 1);
  line->addWidget(box_);
  const auto show = [this] {
    box_->setCurrentIndex(box_->findData(static_cast<int>(document_.design().layout())));
  };
  show();
  refresh_when_seen(this, &document_, show, &Document::changed);
  connect(box_, &QComboBox::activated, this, [this, show](int index) {
    const auto layout = static_cast<Layout>(box_->itemData(index).toInt());
    document_.edit(tr("Arrange the legs: %1").arg(box_->itemText(index)),
                   [&](Design& d) { arrange(d, layout); });
    show();
  });
}

}  // namespace kranich::app
