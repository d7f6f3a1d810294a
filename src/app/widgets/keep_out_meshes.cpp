// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/keep_out_meshes.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/document/when_seen.h"
#include "app/drawing/picture.h"
#include "app/theme.h"
#include "app/widgets/list_table.h"
#include "app/widgets/quantity_edit.h"
#include "core/model/moves.h"
#include "core/motion/triangles.h"

namespace kranich::app {
namespace {

class KeepOutMeshes : public QWidget {
 public:
  KeepOutMeshes(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    each_ = new QVBoxLayout;
    all->addLayout(each_);
    auto* add = new QPushButton(QObject::tr("Add a mesh from a file …"), this);
    add->setObjectName("add-mesh");
    add->setToolTip(
        QObject::tr("STL or OBJ from any drawing program: a duct, a spar, an engine with its mount"));
    QObject::connect(add, &QPushButton::clicked, this, [this] {
      if (const QString file = chosen(); !file.isEmpty()) add_mesh(file);
    });
    auto* row = new QHBoxLayout;
    row->addWidget(add);
    row->addStretch(1);
    all->addLayout(row);
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed);
    refresh();
  }

 private:
  QString chosen() {
    return QFileDialog::getOpenFileName(this, QObject::tr("Mesh of a keep-out"), {},
                                        QObject::tr("Meshes (*.stl *.STL *.obj *.OBJ);;All files (*)"));
  }

  void add_mesh(const QString& file) {
    document_.edit(QObject::tr("Keep-out from a mesh"), [&](Design& d) {
      KeepOut k;
      k.name = unused_name(d.airframe.keep_outs, QFileInfo(file).completeBaseName().toStdString());
      k.shape = Shape::mesh;
      k.file = picture_name(document_, file);
      // A part drawn in the aircraft's own axes lies where it lies there.
      k.low.x = k.low.y = k.low.z = Given(0.0, Origin::estimated);
      d.airframe.keep_outs.push_back(std::move(k));
    });
  }

  //! What was read, or why nothing was.
  void tell(QLabel* said, const KeepOut& k) const {
    const bool wrong = !k.skin.triangles;
    said->setProperty("wrong", wrong);
    said->setStyleSheet(wrong ? QStringLiteral("color: %1").arg(Theme::now().fails.name()) : QString());
    if (wrong) {
      said->setText(k.file.empty()
                        ? QObject::tr("No file chosen: it is not known where it must not be touched")
                        : QString::fromStdString(k.skin.fault));
      return;
    }
    const motion::Triangles& t = *k.skin.triangles;
    const Vec3 size = t.bounds().high - t.bounds().low;
    said->setText(
        QObject::tr("%1 triangles, %2; fore and aft %3, across %4, up and down %5")
            .arg(t.mesh().faces.size())
            .arg(t.closed() ? QObject::tr("closed") : QObject::tr("open: its skin alone is kept clear of"),
                 document_.say(size.x(), Kind::length), document_.say(size.y(), Kind::length),
                 document_.say(size.z(), Kind::length)));
  }

  void refresh() {
    const auto& all = document_.design().airframe.keep_outs;
    std::vector<size_t> meshes;
    for (size_t i = 0; i < all.size(); ++i)
      if (all[i].shape == Shape::mesh) meshes.push_back(i);
    if (meshes != shown_) build(meshes);
    for (size_t i = 0; i < shown_.size(); ++i) {
      const KeepOut& k = all[shown_[i]];
      titles_[i]->setText(QObject::tr("Mesh of “%1”").arg(QString::fromStdString(k.name)));
      tell(said_[i], k);
    }
  }

  void build(const std::vector<size_t>& meshes) {
    shown_ = meshes;
    titles_.clear();
    said_.clear();
    while (QLayoutItem* item = each_->takeAt(0)) {
      if (item->widget()) item->widget()->deleteLater();
      delete item;
    }
    for (const size_t i : meshes) {
      const QString path = QStringLiteral("/airframe/keep_outs/%1/").arg(i);
      auto* one = new QWidget(this);
      auto* column = new QVBoxLayout(one);
      column->setContentsMargins(0, 0, 0, 6);
      titles_.push_back(new QLabel(one));
      titles_.back()->setTextFormat(Qt::PlainText);
      column->addWidget(titles_.back());
      auto* row = new QHBoxLayout;
      row->addWidget(new TextRow(document_, path + "file", QObject::tr("File"), one), 1);
      auto* choose = new QPushButton(QObject::tr("Choose …"), one);
      choose->setObjectName("choose-mesh:" + QString::number(i));
      QObject::connect(choose, &QPushButton::clicked, this, [this, i] {
        const QString file = chosen();
        if (file.isEmpty()) return;
        document_.edit(QObject::tr("Mesh file"),
                       [&](Design& d) { d.airframe.keep_outs[i].file = picture_name(document_, file); });
      });
      row->addWidget(choose, 0, Qt::AlignBottom);
      row->addWidget(new ChoiceRow(document_, path + "unit", QObject::tr("Its numbers are"), one));
      row->addWidget(new ChoiceRow(document_, path + "axes", QObject::tr("Its axes point"), one));
      column->addLayout(row);
      said_.push_back(new QLabel(one));
      said_.back()->setObjectName("mesh-said:" + QString::number(i));
      said_.back()->setTextFormat(Qt::PlainText);
      said_.back()->setWordWrap(true);
      column->addWidget(said_.back());
      each_->addWidget(one);
    }
  }

  Document& document_;
  QVBoxLayout* each_;
  std::vector<size_t> shown_{static_cast<size_t>(-1)};
  std::vector<QLabel*> titles_, said_;
};

}  // namespace

QWidget* make_keep_out_meshes(Document& document, QWidget* parent) {
  return new KeepOutMeshes(document, parent);
}

}  // namespace kranich::app
