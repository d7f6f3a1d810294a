// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/manual.h"

#include <QDialog>
#include <QFile>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QPushButton>
#include <QTextBrowser>
#include <QVBoxLayout>

#include "app/theme.h"

namespace kranich::app {
namespace {

class Manual : public QDialog {
 public:
  explicit Manual(QWidget* parent) : QDialog(parent), pages_(new QTextBrowser(this)) {
    setObjectName("manual");
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("Kranich, the manual"));
    resize(760, 700);
    auto* all = new QVBoxLayout(this);
    auto* line = new QHBoxLayout;
    const auto button = [&](const char* name, const QString& text, auto&& does) {
      auto* b = new QPushButton(text, this);
      b->setObjectName(QString::fromLatin1(name));
      b->setAutoDefault(false);
      connect(b, &QPushButton::clicked, this, does);
      line->addWidget(b);
      return b;
    };
    button("manual-contents", tr("Contents"), [this] { show_chapter("index"); });
    auto* back = button("manual-back", tr("Back"), [this] { pages_->backward(); });
    back->setEnabled(false);
    auto* find = new QLineEdit(this);
    find->setObjectName("manual-find");
    find->setAccessibleName(tr("Find in this chapter"));
    find->setPlaceholderText(tr("Find in this chapter"));
    line->addWidget(find, 1);
    all->addLayout(line);
    pages_->setObjectName("manual-pages");
    pages_->setAccessibleName(tr("Chapter of the manual"));
    pages_->setOpenExternalLinks(false);
    pages_->setFont(text_font(10));
    pages_->setFrameShape(QFrame::NoFrame);
    all->addWidget(pages_, 1);
    connect(pages_, &QTextBrowser::backwardAvailable, back, &QWidget::setEnabled);
    connect(find, &QLineEdit::returnPressed, this, [this, find] {
      // On from where it is, and once more from the top.
      if (pages_->find(find->text())) return;
      pages_->moveCursor(QTextCursor::Start);
      pages_->find(find->text());
    });
  }
  void show_chapter(const QString& chapter) {
    const QString file = QStringLiteral(":/docs/manual/%1.md").arg(chapter);
    pages_->setSource(QUrl("qrc" + (QFile::exists(file) ? file : QStringLiteral(":/docs/manual/index.md"))),
                      QTextDocument::MarkdownResource);
    pages_->document()->setDocumentMargin(18);
  }

 private:
  QTextBrowser* pages_;
};

}  // namespace

QWidget* show_manual(const QString& chapter, QWidget* parent) {
  auto* manual = parent ? dynamic_cast<Manual*>(parent->findChild<QDialog*>("manual")) : nullptr;
  if (!manual) manual = new Manual(parent);
  manual->show_chapter(chapter);
  manual->show();
  manual->raise();
  return manual;
}

}  // namespace kranich::app
