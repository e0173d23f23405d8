#!/bin/sh
# On a fresh Debian 12, as root, in the folder of the source: sh deploy/install.sh closets.example.org
# It may be run again: that is the upgrade.
set -eu
name=${1:?say the name of the site, as in: sh deploy/install.sh closets.example.org}
here=$(cd "$(dirname "$0")/.." && pwd)

apt-get install --yes --no-install-recommends nginx-light python3-venv fonts-dejavu-core make nodejs npm rsync
id pinakotheke >/dev/null 2>&1 || adduser --system --group --home /var/lib/pinakotheke pinakotheke
install -d -m 700 -o pinakotheke -g pinakotheke /var/lib/pinakotheke
# An upgrade backs up first, and goes no further when that fails.
[ ! -e /etc/systemd/system/pinakotheke-backup.service ] || systemctl start pinakotheke-backup.service

rsync --archive --delete --exclude /var --exclude .git --exclude .venv --exclude node_modules \
    --exclude /pinakotheke/server/static "$here/" /opt/pinakotheke/
cd /opt/pinakotheke
make .venv/.primed web

[ -e /etc/pinakotheke.env ] || sed "s/closets.example.org/$name/" deploy/pinakotheke.env > /etc/pinakotheke.env
chmod 600 /etc/pinakotheke.env
cp deploy/systemd/*.service deploy/systemd/*.timer /etc/systemd/system/
cp deploy/proxy.conf /etc/nginx/pinakotheke-proxy.conf
if [ ! -e /etc/nginx/sites-available/pinakotheke ]; then
    sed "s/closets.example.org/$name/" deploy/nginx.conf > /etc/nginx/sites-available/pinakotheke
    ln -sf ../sites-available/pinakotheke /etc/nginx/sites-enabled/pinakotheke
fi
if [ ! -e /etc/ssl/pinakotheke/fullchain.pem ]; then
    # Until there is a certificate that browsers know, one of its own.
    install -d -m 700 /etc/ssl/pinakotheke
    openssl req -x509 -newkey rsa:2048 -nodes -days 365 -subj "/CN=$name" \
        -keyout /etc/ssl/pinakotheke/privkey.pem -out /etc/ssl/pinakotheke/fullchain.pem
fi
systemctl daemon-reload
systemctl enable --now pinakotheke-backup.timer
systemctl enable pinakotheke-web pinakotheke-worker nginx
systemctl restart pinakotheke-web pinakotheke-worker
systemctl reload-or-restart nginx
sleep 5
python3 -c "import urllib.request as r; print(r.urlopen('http://127.0.0.1:8420/health').read().decode())"
