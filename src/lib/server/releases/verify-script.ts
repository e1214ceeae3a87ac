/**
 * The small program that goes with a package, for whoever wants to prove it without Cupboard: Python 3 alone, and OpenSSL
 * for the signatures.
 */
export const VERIFY_SCRIPT = String.raw`#!/usr/bin/env python3
"""Proves a package of a release: run it in the folder that holds bagit.txt.

Every file must have the hash that the package lists, every file must be listed,
the lists must be signed, and what was signed must be what is here.
Needs Python 3; OpenSSL 3 for the signatures. Ends with 0 if all is well, with 1 otherwise.
"""
import hashlib
import json
import os
import shutil
import subprocess
import sys

root = os.path.dirname(os.path.abspath(__file__))
faults = []


def hash_of(path):
    digest = hashlib.sha256()
    with open(os.path.join(root, path), "rb") as file:
        for chunk in iter(lambda: file.read(1 << 20), b""):
            digest.update(chunk)
    return digest.hexdigest()


def listed_in(name):
    files = {}
    with open(os.path.join(root, name), encoding="utf-8") as file:
        for line in file:
            digest, _, path = line.rstrip("\n").partition("  ")
            files[path] = digest
    return files


def here():
    for folder, _, names in os.walk(root):
        for name in names:
            yield os.path.relpath(os.path.join(folder, name), root).replace(os.sep, "/")


payload = listed_in("manifest-sha256.txt")
tags = listed_in("tagmanifest-sha256.txt")
for path, digest in {**payload, **tags}.items():
    if not os.path.exists(os.path.join(root, path)):
        faults.append("missing: " + path)
    elif hash_of(path) != digest:
        faults.append("changed: " + path)
for path in here():
    if path not in payload and path not in tags and path != "tagmanifest-sha256.txt":
        faults.append("not listed: " + path)

openssl = shutil.which("openssl")
signed = 0
for path in sorted(payload):
    if not path.endswith("/manifest.json"):
        continue
    at = os.path.join(root, path)
    if not os.path.exists(at):
        continue
    if openssl:
        done = subprocess.run(
            [openssl, "pkeyutl", "-verify", "-pubin", "-inkey", os.path.join(root, "data/proof/public-key.pem"),
             "-rawin", "-in", at, "-sigfile", at[: -len(".json")] + ".sig"],
            capture_output=True,
        )
        if done.returncode:
            faults.append("signature does not fit: " + path)
        else:
            signed += 1
    try:
        with open(at, encoding="utf-8") as file:
            documents = json.load(file)["documents"]
    except ValueError:
        faults.append("cannot be read: " + path)
        continue
    hashes, originals = (
        {digest for name, digest in payload.items() if name.startswith(folder)}
        for folder in ("data/documents/", "data/originals/")
    )
    for document in documents:
        if document.get("madeFrom", {}).get("sha256", None) not in originals | {None}:
            faults.append("made from what is not here: %s %s" % (document["number"], document["revision"]))
        if document["sha256"] not in hashes:
            faults.append("signed for, and not here as it was: %s %s" % (document["number"], document["revision"]))

for fault in faults:
    print(fault)
if faults:
    sys.exit(1)
print("%d files are whole and listed; %s" % (
    len(payload) + len(tags),
    "%d signed %s" % (signed, "list holds" if signed == 1 else "lists hold") if openssl
    else "the signatures were not tried, for OpenSSL is not installed here"))
`;

const whose = (
	key: string,
	certificate: string
): string => `Neither says by itself whose it is: compare the fingerprints with those that the
project gives you by another way.

     SHA-256 of the public key (SubjectPublicKeyInfo, DER): ${key}
     SHA-256 of the certificate (DER): ${certificate}
`;

/**
 * What is said in the package of how it is proved, by hand or with the program beside it.
 * @param key fingerprint of the key that signs lists, in hex
 * @param certificate fingerprint of the certificate that signs cover notes, in hex
 */
export const howToVerify = (
	key: string,
	certificate: string
): string => `How this package is proved without Cupboard

1. Every file is as it was issued, and every file is listed:

     sha256sum -c --strict --quiet manifest-sha256.txt
     sha256sum -c --strict --quiet tagmanifest-sha256.txt

2. The list of what was issued is signed (Ed25519, RFC 8032), with OpenSSL 3:

     openssl pkeyutl -verify -pubin -inkey data/proof/public-key.pem -rawin \\
       -in data/proof/manifest.json -sigfile data/proof/manifest.sig

   Who got a part of it has a signed list of their own under data/proof/.
   What was stamped or had marks burned in on its way out lies under data/documents
   as it was sent, and under data/originals as it was approved; the list names both.

3. The cover notes carry a digital signature (ISO 32000-1), which readers of PDF show,
   and which poppler-utils proves; its certificate is data/proof/certificate.pem:

     pdfsig "data/proof/Cover note …"

4. All of it at once, with what was signed held against what is here:

     python3 verify.py

${whose(key, certificate)}
The package is a bag by RFC 8493 (BagIt 1.0); other programs that know bags check it too.
`;

/** The same for what one recipient takes away. */
export const howToVerifyShare = (
	key: string,
	certificate: string
): string => `How these files are proved without Cupboard

1. Every file is as it was issued:

     sha256sum -c --strict --quiet sha256sums.txt

2. The list of what was issued to you is signed (Ed25519, RFC 8032), with OpenSSL 3:

     openssl pkeyutl -verify -pubin -inkey proof/public-key.pem -rawin \\
       -in proof/manifest.json -sigfile proof/manifest.sig

3. The cover note carries a digital signature (ISO 32000-1), which readers of PDF show,
   and which poppler-utils proves; its certificate is proof/certificate.pem:

     pdfsig "Cover note …"

${whose(key, certificate)}`;
